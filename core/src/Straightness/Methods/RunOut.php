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

/** Run-out of a turning part: the swing of the dial, and where the high spot is (C8). */
final class RunOut implements Method
{
    public function key(): string
    {
        return 'run-out';
    }

    public function title(): string
    {
        return 'Run-out';
    }

    public function about(): string
    {
        return 'The swing of the dial over a turn; a first harmonic tells how far it is off its axis, and at which angle.';
    }

    public function asks(): array
    {
        return [
            new Ask('angle', 'Angles', '0 90 180 270 °', true, dimension: Dimension::Angle),
            new Ask('reading', 'Reading at each', '0.00 0.02 0.03 0.01 mm', true),
            new Ask('limit', 'Most it may swing', '0.02 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        $angle = $given->row('angle', 3, Dimension::Angle);
        $reading = $given->row('reading', 3);
        if (count($angle) !== count($reading)) {
            throw new CannotAlign(
                'reading',
                'has '.count($reading).' figures, where there are '.count($angle).' angles.',
            );
        }
        $rows = array_map(static fn (float $a): array => [1.0, cos(deg2rad($a)), sin(deg2rad($a))], $angle);
        $found =
            Fit::least($rows, $reading) ?? throw new CannotAlign('angle', 'must be three different ones at least.');
        $off = hypot($found[1], $found[2]);
        $high = fmod(rad2deg(atan2($found[2], $found[1])) + 360, 360);
        $swing = max($reading) - min($reading);

        return new Outcome(
            [
                Outcome::figure('swing', 'Swing of the dial', $swing, 'mm', $given->accuracy() * sqrt(2)),
                Outcome::figure('off', 'Off its axis', $off, 'mm', $given->accuracy()),
                Outcome::figure('high', 'High spot at', $high, '°'),
            ],
            ['reading = a + b·cos φ + c·sin φ by least squares', sprintf('off its axis √(b² + c²) = %.4f mm', $off)],
            [
                sprintf(
                    'Mark %.0f°: turn the cutter or the collet by half a turn and read again; what stays is the spindle.',
                    $high,
                ),
            ],
            [
                [
                    'name' => 'dial',
                    'points' => array_map(static fn (float $x, float $y): array => [$x, $y], $angle, $reading),
                ],
            ],
            $swing,
            $given->has('limit') ? $given->positive('limit') : null,
            $given->accuracy() * sqrt(2),
        );
    }
}
