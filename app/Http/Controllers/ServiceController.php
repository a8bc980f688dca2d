<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Http\Upload;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Magpie\Core\Programs\Caps;
use Magpie\Core\Programs\JobCheck;
use Magpie\Core\Programs\ProgramReader;
use Magpie\Core\Programs\StartList;
use Magpie\Core\Service\Upkeep;

/** A machine in use: programs held against it, its hours, what is due, and how it drifts. */
final class ServiceController
{
    /** A program held against the machine; the program is not kept. */
    public function program(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate(
            [
                'program' => ['required', 'file', 'max:'.Upload::LARGEST],
                'x' => ['nullable', 'numeric'],
                'y' => ['nullable', 'numeric'],
                'z' => ['nullable', 'numeric'],
            ],
            ['program.max' => 'The program is larger than 60 MB; bin/magpie job reads any.'],
        );
        $survey = Document::of($build)->survey();
        $caps = Caps::of($survey->build);
        $program = ProgramReader::read(Upload::lines($request, 'program'), $caps);
        $origin = [];
        foreach (['x', 'y', 'z'] as $key) {
            $origin += isset($asked[$key]) ? [strtoupper($key) => (float) $asked[$key]] : [];
        }
        $held = (new JobCheck($survey, $program, $caps))->toArray($origin);

        return new JsonResponse(['heat' => (object) $held['heat']] + $held);
    }

    /** What is looked at before a job, and what the state of the machine forbids. */
    public function start(Request $request, Build $build): JsonResponse
    {
        $asked = $request->validate(['material' => ['nullable', 'string', 'max:200']]);
        $document = Document::of($build);

        return new JsonResponse(
            StartList::of(
                $document->machine(),
                (string) ($asked['material'] ?? ''),
                $document->inspection()->tally()['danger'] ?? 0,
            ),
        );
    }

    /** Hours, what is due, trends, reference pieces, and what comes next. */
    public function upkeep(Build $build): JsonResponse
    {
        return new JsonResponse((new Upkeep(Document::of($build)->machine()))->toArray());
    }
}
