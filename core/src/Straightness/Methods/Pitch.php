<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Fit;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Steps for one millimetre, and the error over the travel (C6, in the sense of ISO 230-2, from memory). */
final class Pitch implements Method
{
    public function key(): string
    {
        return 'pitch';
    }

    public function title(): string
    {
        return 'Steps for one millimetre';
    }

    public function about(): string
    {
        return 'What was commanded against what was measured, one way and where there is more the other: the steps to set, and what is left over the travel.';
    }

    public function asks(): array
    {
        return [
            new Ask('commanded', 'Commanded', '0 100 200 300 mm', true),
            new Ask('measured', 'Measured', '0 99.6 199.2 298.9 mm', true),
            new Ask('back', 'Measured on the way back', '0.03 99.63 199.23 298.9 mm', true, false),
            new Ask('steps', 'Steps for one millimetre now', '80', needed: false, dimension: Dimension::Ratio),
            new Ask('limit', 'Most it may be off over the travel', '0.1 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.05 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$commanded, $measured] = $given->rows(['commanded', 'measured'], 2);
        [$slope, $start] = Fit::line($commanded, $measured);
        if ($slope <= 0.1 || $slope > 10) {
            throw new CannotAlign('measured', 'does not follow what was commanded.');
        }
        $left = array_map(static fn (float $x, float $y): float => $y - $start - $slope * $x, $commanded, $measured);
        $range = max($left) - min($left);
        $off = array_map(static fn (float $x, float $y): float => $y - $x, $commanded, $measured);
        $now = max($off) - min($off);
        $reversal = null;
        if ($given->has('back')) {
            [, $back] = $given->rows(['commanded', 'back'], 2);
            $reversal = max(array_map(static fn (float $a, float $b): float => abs($a - $b), $measured, $back));
        }
        $steps = $given->has('steps') ? $given->positive('steps', Dimension::Ratio) : null;
        $accuracy = $given->accuracy();

        return new Outcome(
            [
                Outcome::figure(
                    'scale',
                    'Times the steps that are set',
                    1 / $slope,
                    '',
                    ($accuracy * sqrt(2)) / max(1e-9, max($commanded) - min($commanded)),
                ),
                ...$steps === null
                    ? []
                    : [Outcome::figure('steps', 'Steps for one millimetre to set', $steps / $slope, '1/mm')],
                Outcome::figure('now', 'Off over the travel as it is set', $now, 'mm', $accuracy * sqrt(2)),
                Outcome::figure('range', 'Left once that is set', $range, 'mm', $accuracy * sqrt(2)),
                ...$reversal === null
                    ? []
                    : [Outcome::figure('reversal', 'Reversal, at most', $reversal, 'mm', $accuracy * sqrt(2))],
            ],
            [
                'measured = start + slope × commanded by least squares',
                sprintf('slope %.6f; new = old × commanded / measured', $slope),
            ],
            [
                'A belt or screw has the steps its teeth or lead give it: where this is off by more than a thousandth, look for what slips before the number is changed.',
            ],
            [
                [
                    'name' => 'left over the travel',
                    'points' => array_map(static fn (float $x, float $y): array => [$x, $y], $commanded, $left),
                ],
            ],
            $now,
            $given->has('limit') ? $given->positive('limit') : null,
            $accuracy * sqrt(2),
        );
    }
}
