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
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\RecipeWeight;
use Magpie\Core\Printing\Recipe;

/** M14-batch: one piece of a print on the scales, for the rest of it. */
final class BatchWeight implements Check
{
    public function card(): Card
    {
        return new Card(
            'M14-batch',
            'Weighed batch',
            'Does the piece that was weighed of a print say that the whole batch has its walls and infill?',
            Trade::Mechanical,
            'm = ρ·V·(w + (1 − w)·i), 15 % less is a thin batch: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->prints as $ref => $run) {
            if ($run->mass !== null && ! $run->fit && $run->good > 0) {
                $name = $survey->build->parts[$run->part]->name;
                yield new Subject('print', $ref, "{$name}, printed {$run->date}", self::needs($survey, $run->part));
            }
        }
    }

    /**
     * @return list<string> needs a part is chosen for
     */
    private static function needs(Survey $survey, string $part): array
    {
        $needs = [];
        foreach ($survey->build->fittedThat(Ability::Printed) as $ref => $fitted) {
            if ($fitted->part->ref === $part) {
                $needs[] = (string) $ref;
            }
        }

        return $needs;
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $run = $inquiry->build->prints[$inquiry->subject->ref] ?? $inquiry->lack('a print of it');
        $part = $inquiry->build->part($run->part) ?? $inquiry->lack('a part for it');
        $given = RecipeWeight::of($inquiry, $part, $part->name);
        $mass = $inquiry->given(
            "one of {$part->name} on the scales",
            'm',
            $run->mass,
            Evidence::Measured,
            "prints/{$run->ref}/mass",
        );
        $share = RecipeWeight::share($inquiry, $mass, $given);

        return Recipe::isThin($mass->in('g'), $given->in('g'))
            ? $inquiry->conclude(
                Verdict::Fails,
                "It weighs {$share} of what its recipe gives: walls or infill are missing. The other {$run->good} of this print are the same until they are weighed.",
                null,
                '85 %',
            )
            : $inquiry->conclude(Verdict::Holds, "{$mass}, {$share} of what its recipe gives.", null, '85 %');
    }

    public function examples(): Examples
    {
        $file = static fn (string $mass): array => Examples::file(
            [
                Examples::part('corner', 'printed_part', [
                    'material' => 'ASA',
                    'infill' => '40 %',
                    'volume' => '20 cm³',
                    'wall_share' => '45 %',
                ]),
            ],
            [
                'prints' => [
                    ['ref' => 'run', 'part' => 'corner', 'date' => '2026-03-01', 'good' => 4, 'mass' => $mass],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('7.1 g'),
            static fn (): array => $file('14.2 g'),
            Verdict::Fails,
        );
    }
}
