<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\RecipeWeight;
use Magpie\Core\Printing\Recipe;

/** M14-weight: a printed part on the scales. */
final class PrintWeight implements Check
{
    public function card(): Card
    {
        return new Card(
            'M14-weight',
            'Print weight',
            'Does a part of the batch weigh what its recipe gives?',
            Trade::Mechanical,
            'm = ρ·V·(w + (1 − w)·i), 15 % less is a thin batch: common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Printed) as $ref => $fitted) {
            if ($fitted->part->spec('volume') !== null || $fitted->part->spec('wall_share') !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $part = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $mass = $inquiry->tryRead($part, 'mass', 'm', Bound::Lowest);
        if ($inquiry->evidenceOf($part, 'mass') !== Evidence::Measured) {
            $inquiry->missUntil(
                Stage::Made,
                "{$part->need->role} on the scales",
                "parts/{$part->part->ref}/specs/mass",
            );
        }
        $given = RecipeWeight::of($inquiry, $part->part, $part->need->role);
        if ($mass === null) {
            throw new InputMissing;
        }
        $share = RecipeWeight::share($inquiry, $mass, $given);

        return Recipe::isThin($mass->in('g'), $given->in('g'))
            ? $inquiry->conclude(
                Verdict::Fails,
                "It weighs {$share} of what its recipe gives: walls or infill are missing. Weigh the rest of its batch.",
                null,
                '85 %',
            )
            : $inquiry->conclude(Verdict::Holds, "{$mass}, {$share} of what its recipe gives.", null, '85 %');
    }

    public function examples(): Examples
    {
        $file = static function (string $mass): array {
            [$part, $need] = Examples::part('corner', 'printed_part', [
                'material' => 'ASA',
                'infill' => '40 %',
                'volume' => '20 cm³',
                'wall_share' => '45 %',
            ]);
            $weighed = ['specs' => ['mass' => ['value' => $mass, 'evidence' => 'measured']]];

            return Examples::file([[array_replace_recursive($part, $weighed), $need]]);
        };

        return new Examples(
            static fn (): array => $file('7.1 g'),
            static fn (): array => $file('14.2 g'),
            Verdict::Fails,
        );
    }
}
