<?php

declare(strict_types=1);

namespace App\Errands;

use App\Models\Build;
use App\Models\Errand;
use Illuminate\Validation\Rule;
use Magpie\Core\Printing\CannotReadMesh;
use Magpie\Core\Printing\MeshReader;

/** What a file of triangles says of a printed part. What it says is written where the builder wants it. */
final class ReadMesh implements Work
{
    private const PIECE = 262_144;

    /** Millimetres of what a file may be drawn in. */
    private const UNITS = ['mm' => 1.0, 'cm' => 10.0, 'in' => 25.4];

    public function rules(Build $build): array
    {
        return ['unit' => ['sometimes', Rule::in(array_keys(self::UNITS))]];
    }

    public function do(Errand $errand, Build $build, string $brought, Progress $progress): array
    {
        try {
            $mesh = MeshReader::read($progress->pieces($brought, self::PIECE));
        } catch (CannotReadMesh $e) {
            throw new CannotDo("This file cannot be read: {$e->getMessage()}");
        }
        $unit = $errand->given['unit'] ?? 'mm';
        $mesh = $mesh->times(self::UNITS[is_string($unit) ? $unit : 'mm']);

        return ['specs' => $mesh->specs()] + $mesh->toArray();
    }
}
