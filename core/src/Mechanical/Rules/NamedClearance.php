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
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\ClearanceSide;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;

/** M11: two things that must never meet, over the whole travel of what carries them. */
final class NamedClearance implements Check
{
    public function card(): Card
    {
        return new Card(
            'M11',
            'Clearance',
            'Do these two never meet, wherever the axes stand?',
            Trade::Mechanical,
            'Interval arithmetic over the travel of each axis; axes are taken as moving freely of each other',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->clearances as $clearance) {
            yield new Subject('clearance', $clearance->ref, $clearance->name);
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $clearance = $inquiry->build->clearances[$inquiry->subject->ref];
        [$one, $other] = $clearance->between;
        $round = self::roundAbout($one, $other);
        $best = $round === null ? null : $this->across($inquiry, $one, $other, $round);
        foreach ($round === null ? Along::words() : [$round] as $along) {
            if ($one->box[$along] === null || $other->box[$along] === null) {
                $inquiry->remark("Along {$along} one of them is not given: they are taken as side by side there.");

                continue;
            }
            [$a, $b] = [$this->swept($inquiry, $one, $along), $this->swept($inquiry, $other, $along)];
            $gap = Quantity::max($a->low->minus($b->high), $b->low->minus($a->high));
            $inquiry->work(
                "Gap along {$along} at the closest",
                'g = max(a₁ − b₂, b₁ − a₂)',
                ['a₁' => $a->low, 'a₂' => $a->high, 'b₁' => $b->low, 'b₂' => $b->high],
                $gap,
                'mm',
            );
            $best = $best === null ? $gap : Quantity::max($best, $gap);
        }
        $best ??= $inquiry->lack('where the two are, in some direction at least');
        $best = $best->to('mm');
        $inquiry->given(
            "where {$one->what} and {$other->what} are",
            'g',
            $best,
            $clearance->evidence,
            "clearances/{$clearance->ref}/evidence",
        );
        $least = $clearance->least ?? Quantity::of(0, 'mm');
        $verdict = match (true) {
            ! $best->isPositive() => Verdict::Fails,
            $best->isBelow($least) => $clearance->preference ? Verdict::Tight : Verdict::Fails,
            // Exactly what is wanted leaves nothing to spare.
            $least->isPositive() && ! $best->exceeds($least) => Verdict::Tight,
            default => Verdict::Holds,
        };
        $says = ! $best->isPositive()
            ? "{$one->what} and {$other->what} meet: they overlap by {$best->times(-1)} somewhere in the travel."
            : "{$best} are left between {$one->what} and {$other->what} at the closest".
                ($clearance->least === null ? '.' : "; {$least} are wanted.");

        return $inquiry->conclude($verdict, $says, null, $clearance->least === null ? 'more than nought' : "{$least}");
    }

    /** The direction about which one of them is round, and the other is too or is a box; null when boxes have to do. */
    private static function roundAbout(ClearanceSide $one, ClearanceSide $other): ?string
    {
        $round = array_values(array_unique(array_filter([$one->round, $other->round])));
        $box = $one->round === null ? $one->box : $other->box;
        $given = count($round) === 1 && array_filter(array_diff_key($box, [$round[0] => 0]), is_null(...)) === [];

        return $given ? $round[0] : null;
    }

    /** Gap between two that are round, or one that is and a box, across the direction they are round about. */
    private function across(Inquiry $inquiry, ClearanceSide $one, ClearanceSide $other, string $round): Quantity
    {
        $apart = $symbols = [];
        [$r, $s] = [self::radius($one), self::radius($other)];
        foreach (array_values(array_diff(Along::words(), [$round])) as $along) {
            // Where the middle of a disc may be, or the sides of a box.
            $a = self::shrunk($this->swept($inquiry, $one, $along), $one, $along);
            $b = self::shrunk($this->swept($inquiry, $other, $along), $other, $along);
            $apart[] = $symbols["d_{$along}"] = Quantity::max(
                $a->low->minus($b->high),
                $b->low->minus($a->high),
                Quantity::of(0, 'mm'),
            );
        }
        $distance = Quantity::of(hypot($apart[0]->in('mm'), $apart[1]->in('mm')), 'mm');

        return $inquiry->work(
            "Gap across {$round} at the closest, middles by their distance",
            'g = √('.implode('² + ', array_keys($symbols)).'²) − r₁ − r₂',
            $symbols + ['r₁' => $r, 'r₂' => $s],
            $distance->minus($r)->minus($s),
            'mm',
        );
    }

    /** Radius of one that is round, the larger where its box is not square; nought of a box. */
    private static function radius(ClearanceSide $side): Quantity
    {
        $largest = Quantity::of(0, 'mm');
        foreach ($side->round === null ? [] : array_diff_key($side->box, [$side->round => 0]) as $range) {
            $largest = $range === null ? $largest : Quantity::max($largest, $range->high->minus($range->low)->over(2));
        }

        return $largest->to('mm');
    }

    /** What is left of a swept range for the middle of a disc. */
    private static function shrunk(Range $swept, ClearanceSide $side, string $along): Range
    {
        $own = $side->box[$along];
        if ($side->round === null || $own === null) {
            return $swept;
        }
        $half = $own->high->minus($own->low)->over(2);

        return Range::between($swept->low->plus($half), $swept->high->minus($half));
    }

    public function examples(): Examples
    {
        $file = static fn (string $x): array => Examples::file(
            [Examples::part('rail', 'linear_rail', ['length' => '400 mm', 'block_length' => '60 mm'])],
            [
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'rail']],
                'clearances' => [
                    [
                        'ref' => 'c',
                        'name' => 'Motor and side',
                        'between' => [
                            ['what' => 'Motor', 'x' => '0 mm to 60 mm', 'moves' => ['x']],
                            ['what' => 'Side plate', 'x' => $x],
                        ],
                        'least' => '2 mm',
                        'evidence' => 'measured',
                    ],
                ],
            ],
        );

        return new Examples(
            static fn (): array => $file('390 mm to 400 mm'),
            static fn (): array => $file('410 mm to 420 mm'),
            Verdict::Fails,
        );
    }

    /** Where a thing may be along one direction, with every axis that carries it anywhere in its travel. */
    private function swept(Inquiry $inquiry, ClearanceSide $side, string $along): Range
    {
        $range = $side->box[$along] ?? $inquiry->lack("where {$side->what} is along {$along}");
        $high = $range->high;
        foreach ($side->moves as $ref) {
            $axis = $inquiry->build->axes[$ref];
            $high = $axis->along->value === $along ? $high->plus(UsableTravel::of($inquiry, $axis)) : $high;
        }

        return Range::between($range->low, $high);
    }
}
