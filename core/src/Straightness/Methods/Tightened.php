<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** What tightening moved: the same places before and after. */
final class Tightened implements Method
{
    public function key(): string
    {
        return 'tightened';
    }

    public function title(): string
    {
        return 'What tightening moved';
    }

    public function about(): string
    {
        return 'The same places read before the screws were tightened and after.';
    }

    public function asks(): array
    {
        return [
            new Ask('at', 'Places', '0 100 200 300 mm', true),
            new Ask('before', 'Before', '0.00 0.01 0.01 0.00 mm', true),
            new Ask('after', 'After', '0.02 0.06 0.05 0.01 mm', true),
            new Ask('limit', 'Most it may move', '0.05 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$at, $before, $after] = $given->rows(['at', 'before', 'after'], 1);
        $moved = array_map(static fn (float $one, float $other): float => $other - $one, $before, $after);
        $most = 0;
        foreach ($moved as $i => $one) {
            $most = abs($one) > abs($moved[$most]) ? $i : $most;
        }
        // Each followed by the one farthest from it, so that none pulls twice running at one end.
        $order = range(0, count($at) - 1);
        usort($order, static fn (int $a, int $b): int => abs($moved[$b]) <=> abs($moved[$a]));

        return new Outcome(
            [
                Outcome::figure('moved', 'Moved at most', $moved[$most], 'mm', $given->accuracy() * sqrt(2)),
                Outcome::figure('mean', 'On average', array_sum($moved) / count($moved), 'mm'),
            ],
            ['after − before, at each place'],
            [
                sprintf(
                    'Most at %.0f mm. Loosen again in this order, tighten in steps from the middle: %s.',
                    $at[$most],
                    implode(
                        ', ',
                        array_map(static fn (int $i): string => sprintf('%.0f mm', $at[$i]), array_slice($order, 0, 6)),
                    ),
                ),
            ],
            [
                [
                    'name' => 'after − before',
                    'points' => array_map(static fn (float $x, float $y): array => [$x, $y], $at, $moved),
                ],
            ],
            abs($moved[$most]),
            $given->has('limit') ? $given->positive('limit') : null,
            $given->accuracy() * sqrt(2),
        );
    }
}
