<?php

declare(strict_types=1);

namespace App\Errands;

use App\Builds\Document;
use App\Models\Build;
use App\Models\Errand;
use Closure;
use Illuminate\Validation\Rule;
use Magpie\Core\Programs\Caps;
use Magpie\Core\Programs\JobCheck;
use Magpie\Core\Programs\ProgramReader;
use Magpie\Core\Programs\Stock;

/** A program held against the machine; the program is not kept. */
final class CheckProgram implements Work
{
    public function rules(Build $build): array
    {
        return [
            'x' => ['nullable', 'numeric'],
            'y' => ['nullable', 'numeric'],
            'z' => ['nullable', 'numeric'],
            'stock' => [
                'nullable',
                'string',
                'max:60',
                static function (string $field, mixed $value, Closure $fail) use ($build): void {
                    if (is_string($value) && ! isset(Document::of($build)->machine()->workpieces[$value])) {
                        $fail("\"{$value}\" is no workpiece of this build.");
                    }
                },
            ],
            'zero' => ['nullable', Rule::in(['top', 'bed'])],
        ];
    }

    public function do(Errand $errand, Build $build, string $brought, Progress $progress): array
    {
        /** @var array{x?: string, y?: string, z?: string, stock?: string, zero?: string} $given */
        $given = $errand->given ?? [];
        $survey = Document::of($build)->survey();
        $piece = $survey->build->workpieces[$given['stock'] ?? ''] ?? null;
        if (isset($given['stock']) && $piece === null) {
            throw new CannotDo("\"{$given['stock']}\" is no workpiece of this build any more.");
        }
        $caps = Caps::of($survey->build);
        $program = ProgramReader::read($progress->lines($brought), $caps);
        $origin = [];
        foreach (['x', 'y', 'z'] as $key) {
            $origin += isset($given[$key]) ? [strtoupper($key) => (float) $given[$key]] : [];
        }
        $held = (new JobCheck($survey, $program, $caps))->toArray(
            $origin,
            $piece === null ? null : new Stock($piece, ($given['zero'] ?? 'top') === 'top'),
        );

        return ['heat' => (object) $held['heat']] + $held;
    }
}
