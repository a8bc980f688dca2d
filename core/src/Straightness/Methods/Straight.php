<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Fit;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Straightness and slope of a rail or surface from heights along it (C4): by its end points and by least squares. */
final class Straight implements Method
{
    public function key(): string
    {
        return 'straight';
    }

    public function title(): string
    {
        return 'A rail or edge along its length';
    }

    public function about(): string
    {
        return 'How far it leaves a straight line: by its end points, and by least squares; and its slope. In the sense of ISO 230-1 (from memory).';
    }

    public function asks(): array
    {
        return [
            new Ask('at', 'Places along it', '0 100 200 300 mm', true),
            new Ask('height', 'Reading at each', '0.00 0.02 0.03 0.01 mm', true),
            new Ask('limit', 'Most it may leave a straight line', '0.05 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$at, $height] = $given->rows(['at', 'height'], 3);
        array_multisort($at, $height);
        [$slope, $start] = Fit::line($at, $height);
        $last = count($at) - 1;
        $reach = $at[$last] - $at[0];
        $ends = abs($reach) < 1e-12 ? 0.0 : ($height[$last] - $height[0]) / $reach;
        $fromLine = $fromEnds = [];
        foreach ($at as $i => $x) {
            $fromLine[] = $height[$i] - ($start + $slope * $x);
            $fromEnds[] = $height[$i] - ($height[0] + $ends * ($x - $at[0]));
        }
        $least = max($fromLine) - min($fromLine);
        $byEnds = max($fromEnds) - min($fromEnds);
        $accuracy = $given->accuracy();
        $high = (int) array_search(max($fromLine), $fromLine, true);

        return new Outcome(
            [
                Outcome::figure('ends', 'Off a line through its ends', $byEnds, 'mm', $accuracy * sqrt(2)),
                Outcome::figure('least', 'Off the best line', $least, 'mm', $accuracy * sqrt(2)),
                Outcome::figure(
                    'slope',
                    'Slope',
                    $slope * 1000,
                    'mm/m',
                    (($accuracy * sqrt(2)) / max(1e-9, max($at) - min($at))) * 1000,
                ),
            ],
            [
                sprintf('best line: %.4f mm + %.6f × place', $start, $slope),
                sprintf('end points: %.6f mm for one mm', $ends),
            ],
            [
                sprintf('It stands highest at %.0f mm, by %.3f mm.', $at[$high], max($fromLine)),
                'Screws pull as they tighten, by about 0.1 mm: from the middle outwards, each a little, then read again (common practice, no source).',
            ],
            [
                [
                    'name' => 'off the best line',
                    'points' => array_map(static fn (float $x, float $y): array => [$x, $y], $at, $fromLine),
                ],
            ],
            $byEnds,
            $given->has('limit') ? $given->positive('limit') : null,
            $accuracy * sqrt(2),
        );
    }
}
