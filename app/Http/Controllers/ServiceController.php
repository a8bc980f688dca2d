<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Magpie\Core\Programs\StartList;
use Magpie\Core\Service\Upkeep;

/** A machine in use: what is looked at before a job, its hours, what is due, and how it drifts. */
final class ServiceController
{
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
        return new JsonResponse((new Upkeep(Document::of($build)->machine(), time()))->toArray());
    }
}
