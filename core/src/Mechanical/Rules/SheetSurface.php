<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Trade;

/** M15-surface: what is printed, on what it is printed on. */
final class SheetSurface implements Check
{
    /** Plastic → surface → what happens. Common practice, no source. */
    private const PAIRS = [
        'PETG' => [
            'smooth' => 'bonds so well to a smooth sheet that it tears pieces out: a release agent, or a textured sheet',
        ],
        'PC' => ['textured' => 'lets go of a textured sheet: glue, or a smooth one'],
        'PA' => [
            'smooth' => 'lets go of a plain smooth sheet: glue',
            'textured' => 'lets go of a textured sheet: glue, or its own sheet',
        ],
    ];

    public function card(): Card
    {
        return new Card(
            'M15-surface',
            'Sheet and filament',
            'Does what is printed hold on this surface, and come off again?',
            Trade::Mechanical,
            'Pairs of plastic and surface: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        $filaments = array_map(strval(...), array_keys([...$survey->build->fittedThat(Ability::Feedstock)]));
        foreach ($filaments === [] ? [] : $survey->build->fittedThat(Ability::CarriesPrints) as $ref => $fitted) {
            yield new Subject('need', $ref, $fitted->need->role, [$ref, ...$filaments]);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $sheet = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $surface = $inquiry->tryChoice($sheet, 'surface') ?? $inquiry->lack("surface of {$sheet->need->role}");
        $wrong = $known = [];
        foreach ($inquiry->build->fittedThat(Ability::Feedstock) as $filament) {
            $material =
                $inquiry->tryChoice($filament, 'material') ??
                $inquiry->miss("material of {$filament->need->role}", "parts/{$filament->part->ref}/specs/material");
            $known[] = $material;
            if ($material !== null && isset(self::PAIRS[$material][$surface])) {
                $wrong[] = "{$material} ".self::PAIRS[$material][$surface];
            }
        }
        $inquiry->remark('Printed here: '.implode(', ', array_filter($known)).", on a {$surface} sheet.");

        return $wrong === []
            ? $inquiry->conclude(
                Verdict::Holds,
                implode(', ', array_filter($known))." on a {$surface} sheet: the usual pair.",
            )
            : $inquiry->conclude(Verdict::Tight, implode('; ', $wrong).'.');
    }

    public function examples(): Examples
    {
        $file = static fn (string $material): array => Examples::file([
            Examples::part('sheet', 'build_sheet', ['surface' => 'smooth']),
            Examples::part('f', 'filament', ['material' => $material]),
        ]);

        return new Examples(static fn (): array => $file('PETG'), static fn (): array => $file('PLA'), Verdict::Tight);
    }
}
