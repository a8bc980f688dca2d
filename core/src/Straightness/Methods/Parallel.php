<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Fit;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Parallelism of a pair of rails: the difference of two runs (C4). */
final class Parallel implements Method
{
    public function key(): string
    {
        return 'parallel';
    }

    public function title(): string
    {
        return 'A pair of rails';
    }

    public function about(): string
    {
        return 'The second rail run against the first: how much the distance changes, and how much of that is a slope.';
    }

    public function asks(): array
    {
        return [
            new Ask('at', 'Places along it', '0 100 200 300 mm', true),
            new Ask('first', 'Reading over the first rail', '0.00 0.01 0.01 0.00 mm', true),
            new Ask('second', 'Reading over the second', '0.00 0.03 0.05 0.06 mm', true),
            new Ask('limit', 'Most it may change', '0.05 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$at, $first, $second] = $given->rows(['at', 'first', 'second'], 2);
        $apart = array_map(static fn (float $one, float $other): float => $other - $one, $first, $second);
        [$slope, $start] = Fit::line($at, $apart);
        $rest = array_map(static fn (float $x, float $y): float => $y - $start - $slope * $x, $at, $apart);
        $accuracy = $given->accuracy();
        $off = max($apart) - min($apart);
        $turn = $slope * (max($at) - min($at));

        return new Outcome(
            [
                Outcome::figure('off', 'Not parallel by', $off, 'mm', $accuracy * 2),
                Outcome::figure('slope', 'Of it a slope of', $slope * 1000, 'mm/m'),
                Outcome::figure('rest', 'Left when that is turned away', max($rest) - min($rest), 'mm', $accuracy * 2),
            ],
            ['second − first, at each place', sprintf('best line of that: %.4f mm + %.6f × place', $start, $slope)],
            [
                abs($turn) <= $accuracy * 2
                    ? 'There is no slope to turn away, as far as the instrument can tell.'
                    : sprintf(
                        'Loosen the second rail, and bring its far end %s by %.3f mm.',
                        $turn > 0 ? 'in' : 'out',
                        abs($turn),
                    ),
                'Ten minutes for a first rail, ninety for the rest (common practice, no source).',
            ],
            [
                [
                    'name' => 'second − first',
                    'points' => array_map(static fn (float $x, float $y): array => [$x, $y], $at, $apart),
                ],
            ],
            $off,
            $given->has('limit') ? $given->positive('limit') : null,
            $accuracy * 2,
        );
    }
}
