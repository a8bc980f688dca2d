<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

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
        foreach ($survey->build->fittedOf('printed_part') as $ref => $fitted) {
            if ($fitted->part->spec('volume') !== null || $fitted->part->spec('wall_share') !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [$ref]);
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $part = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $material = $inquiry->tryChoice($part, 'material') ?? $inquiry->lack("material of {$part->need->role}");
        $density = Materials::density($material) ?? $inquiry->lack("density of this {$material}");
        [$volume, $walls, $infill] = $inquiry->readAll($part, ['V' => 'volume', 'w' => 'wall_share', 'i' => 'infill']);
        $mass = $inquiry->read($part, 'mass', 'm', Bound::Lowest);
        if ($inquiry->evidenceOf($part, 'mass') !== Evidence::Measured) {
            $inquiry->missUntil(
                Stage::Made,
                "{$part->need->role} on the scales",
                "parts/{$part->part->ref}/specs/mass",
            );
        }
        $given = $inquiry->work(
            'Weight by its recipe',
            'm_r = ρ × V × (w + (1 − w) × i)',
            ['V' => $volume, 'w' => $walls, 'i' => $infill],
            Quantity::of(
                ($density / 1000) * $volume->in('cm³') * ($walls->in('') + (1 - $walls->in('')) * $infill->in('')),
                'g',
            ),
            'g',
        );
        $share = $inquiry->work(
            'Weighed, of that',
            'k = m / m_r',
            ['m' => $mass, 'm_r' => $given],
            $mass->over($given),
            '%',
        );

        return $share->isBelow(Quantity::ratio(0.85))
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
