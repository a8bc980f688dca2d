<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Fit;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** A circle that was cut or drawn: least-squares centre, and how far it is from round (C7; ISO 230-4, from memory). */
final class Circle implements Method
{
    public function key(): string
    {
        return 'circle';
    }

    public function title(): string
    {
        return 'A circle, cut or drawn';
    }

    public function about(): string
    {
        return 'Points of it, at even angles or not: the least-squares circle, the deviation r_max − r_min, and which way it is oval.';
    }

    public function asks(): array
    {
        return [
            new Ask('x', 'Points, across', '50 0 -50 0 mm', true),
            new Ask('y', 'Points, along', '0 50 0 -50 mm', true),
            new Ask('limit', 'Most it may be out of round', '0.1 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$x, $y] = $given->rows(['x', 'y'], 4);
        // x² + y² = 2ax + 2by + c is linear in a, b and c; then nearer by steps, each along the radii (Gauss and Newton).
        $rows = array_map(static fn (float $a, float $b): array => [2 * $a, 2 * $b, 1.0], $x, $y);
        $found =
            Fit::least($rows, array_map(static fn (float $a, float $b): float => $a ** 2 + $b ** 2, $x, $y)) ??
            throw new CannotAlign('x', 'the points stand in one line.');
        [$a, $b] = $found;
        $r = sqrt(max(0.0, $found[2] + $a ** 2 + $b ** 2));
        for ($turn = 0; $turn < 30; $turn++) {
            $rows = $off = [];
            foreach ($x as $i => $one) {
                $d = max(1e-12, hypot($one - $a, $y[$i] - $b));
                $rows[] = [($one - $a) / $d, ($y[$i] - $b) / $d, 1.0];
                $off[] = $d - $r;
            }
            $step = Fit::least($rows, $off);
            if ($step === null) {
                break;
            }
            [$a, $b, $r] = [$a + $step[0], $b + $step[1], $r + $step[2]];
            if (hypot(hypot($step[0], $step[1]), $step[2]) < 1e-12 * max(1.0, $r)) {
                break;
            }
        }
        $radii = $angles = [];
        foreach ($x as $i => $one) {
            $radii[] = hypot($one - $a, $y[$i] - $b);
            $angles[] = atan2($y[$i] - $b, $one - $a);
        }
        $round = max($radii) - min($radii);
        $oval =
            count($x) < 5
                ? null
                : Fit::least(array_map(static fn (float $t): array => [1.0, cos(2 * $t), sin(2 * $t)], $angles), $radii);
        $figures = [
            Outcome::figure('round', 'Out of round', $round, 'mm', $given->accuracy() * sqrt(2)),
            Outcome::figure('diameter', 'Diameter', 2 * $r, 'mm', (2 * $given->accuracy()) / sqrt(count($x))),
        ];
        $says = [];
        if ($oval !== null) {
            $size = 2 * hypot($oval[1], $oval[2]);
            $way = fmod(rad2deg(atan2($oval[2], $oval[1])) / 2 + 180, 180);
            $figures[] = Outcome::figure('oval', 'Oval by', $size, 'mm');
            $figures[] = Outcome::figure('way', 'Longest at', $way, '°');
            $slanted = abs(abs($way - 90) - 45) < 22.5;
            $says[] =
                $size <= $given->accuracy() * 2
                    ? 'Not oval, as far as the instrument can tell.'
                    : ($slanted
                        ? 'Oval on the slant: the axes are not square to each other, or one follows later than the other.'
                        : 'Oval along an axis: the steps of one axis for a millimetre are off, or its belt or screw gives.');
        }
        $order = array_keys($angles);
        usort($order, static fn (int $i, int $j): int => $angles[$i] <=> $angles[$j]);

        return new Outcome(
            $figures,
            [
                sprintf('least-squares circle: centre (%.4f, %.4f) mm, radius %.4f mm', $a, $b, $r),
                sprintf('r_max − r_min = %.4f − %.4f mm', max($radii), min($radii)),
            ],
            [
                ...$says,
                'Steps where an axis turns round are lost motion of the other: look for them at 0°, 90°, 180° and 270°.',
            ],
            [
                [
                    'name' => 'radius off the mean',
                    'points' => array_map(static fn (int $i): array => [rad2deg($angles[$i]), $radii[$i] - $r], $order),
                ],
            ],
            $round,
            $given->has('limit') ? $given->positive('limit') : null,
            $given->accuracy() * sqrt(2),
        );
    }
}
