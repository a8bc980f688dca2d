<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Fit;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Heights at points of a bed or gantry: the plane through them, and how far each adjuster is turned (C2). */
final class Corners implements Method
{
    public function key(): string
    {
        return 'corners';
    }

    public function title(): string
    {
        return 'Corners of a bed or gantry';
    }

    public function about(): string
    {
        return 'The plane through the heights by least squares, and the turns of each adjuster against the first corner. What is bent cannot be turned away.';
    }

    public function asks(): array
    {
        return [
            new Ask('x', 'Across, at each point', '0 300 300 0 mm', true),
            new Ask('y', 'Along, at each point', '0 0 300 300 mm', true),
            new Ask('z', 'Height there, up is more', '0.00 0.35 0.20 -0.10 mm', true),
            new Ask('pitch', 'Pitch of the adjusters', '0.7 mm'),
            new Ask('limit', 'Most the levelling routine takes', '0.5 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$x, $y, $z] = $given->rows(['x', 'y', 'z'], 3);
        $pitch = $given->positive('pitch');
        $rows = array_map(static fn (float $one, float $other): array => [1.0, $one, $other], $x, $y);
        $plane =
            Fit::least($rows, $z) ??
            throw new CannotAlign('x', 'the points stand in one line: a plane needs three that do not.');
        [$a, $b, $c] = $plane;
        $height = static fn (int $i): float => $a + $b * $x[$i] + $c * $y[$i];
        $turns = $bend = [];
        foreach (array_keys($z) as $i) {
            $turns[] = ($height(0) - $height($i)) / $pitch;
            $bend[] = $z[$i] - $height($i);
        }
        $spread = max($z) - min($z);
        $accuracy = $given->accuracy();
        $limit = $given->has('limit') ? $given->positive('limit') : null;
        $says = [];
        foreach ($turns as $i => $turn) {
            if (abs($turn * $pitch) > $accuracy) {
                $says[] = sprintf(
                    'Corner %d: %s by %.2f turns (%.2f mm).',
                    $i + 1,
                    $turn >= 0 ? 'raise' : 'lower',
                    abs($turn),
                    abs($turn * $pitch),
                );
            }
        }
        if ($says === []) {
            $says[] = 'No corner is off by more than the instrument can tell.';
        }
        if ($limit !== null && $spread > $limit) {
            $says[] = 'The levelling routine would refuse. Set the corners by hand first; do not widen its limit.';
        }
        if (count($z) > 3) {
            $says[] = sprintf(
                'Bent by %.3f mm about that plane: no adjuster takes that away.',
                max($bend) - min($bend),
            );
        }

        return new Outcome(
            [
                Outcome::figure('spread', 'Highest to lowest', $spread, 'mm', $accuracy * sqrt(2)),
                Outcome::figure('across', 'Leans across', $b * 1000, 'mm/m'),
                Outcome::figure('along', 'Leans along', $c * 1000, 'mm/m'),
                Outcome::figure('bend', 'Bent about the plane', max($bend) - min($bend), 'mm', $accuracy * sqrt(2)),
                ...array_map(
                    static fn (float $turn, int $i): array => Outcome::figure(
                        "turns{$i}",
                        "Turns of corner {$i}",
                        $turn,
                        'turns',
                        $accuracy / $pitch,
                    ),
                    $turns,
                    range(1, count($turns)),
                ),
            ],
            [
                'z = a + b·x + c·y by least squares',
                sprintf('a = %.4f mm, b = %.6f, c = %.6f', $a, $b, $c),
                sprintf('turns = (height at corner 1 − height there) / pitch %.3g mm', $pitch),
            ],
            $says,
            [
                [
                    'name' => 'height',
                    'points' => array_map(
                        static fn (int $i, float $one): array => [(float) ($i + 1), $one],
                        array_keys($z),
                        $z,
                    ),
                ],
            ],
            $spread,
            $limit,
            $accuracy * sqrt(2),
        );
    }
}
