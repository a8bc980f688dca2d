<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Builds\Document;
use App\Models\Build;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Planning\PrintReport;
use Magpie\Core\Printing\CannotReadMesh;
use Magpie\Core\Printing\MeshReader;

/** What is printed, when and on which printer; and what a file of triangles says of a printed part. */
final class PrintController
{
    private const PIECE = 262_144;

    /** Millimetres of what a file may be drawn in. */
    private const UNITS = ['mm' => 1.0, 'cm' => 10.0, 'in' => 25.4];

    public function queue(Build $build): JsonResponse
    {
        return new JsonResponse((new PrintReport(Document::of($build)->machine(), now()->format('Y-m-d')))->toArray());
    }

    /** Reads a file and keeps nothing of it: what it says is written where the builder wants it. */
    public function mesh(Request $request): JsonResponse
    {
        $request->validate(
            [
                'mesh' => ['required', 'file', 'max:61440'],
                'unit' => ['sometimes', Rule::in(array_keys(self::UNITS))],
            ],
            ['mesh.max' => 'The file is larger than 60 MB.'],
        );
        /** @var UploadedFile $file */
        $file = $request->file('mesh');
        try {
            $mesh = MeshReader::read(self::pieces($file->getPathname()));
        } catch (CannotReadMesh $e) {
            throw ValidationException::withMessages(['mesh' => "This file cannot be read: {$e->getMessage()}"]);
        }

        $mesh = $mesh->times(self::UNITS[$request->string('unit', 'mm')->toString()] ?? 1.0);

        return new JsonResponse(['specs' => $mesh->specs()] + $mesh->toArray());
    }

    /**
     * @return iterable<string>
     */
    private static function pieces(string $path): iterable
    {
        $stream = fopen($path, 'rb');
        while ($stream !== false && ! feof($stream)) {
            yield (string) fread($stream, self::PIECE);
        }
    }
}
