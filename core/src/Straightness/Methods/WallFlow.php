<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Flow from walls of a cube of one line: new = old × wanted / measured. */
final class WallFlow implements Method
{
    public function key(): string
    {
        return 'flow';
    }

    public function title(): string
    {
        return 'Flow, from the wall of a hollow cube';
    }

    public function about(): string
    {
        return 'A cube of a single line, measured at the middle of each side: how thick it came against the line width it was sliced with.';
    }

    public function asks(): array
    {
        return [
            new Ask('wanted', 'Line width it was sliced with', '0.45 mm'),
            new Ask('walls', 'Walls, measured', '0.47 0.48 0.46 0.48 mm', true),
            new Ask('flow', 'Flow now, in per cent', '100', needed: false, dimension: Dimension::Ratio),
            new Ask('limit', 'Most a wall may be off', '0.02 mm', needed: false),
            new Ask('accuracy', 'A division of the callipers', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        $wanted = $given->positive('wanted');
        $walls = $given->row('walls', 2);
        $mean = array_sum($walls) / count($walls);
        if ($mean <= 0) {
            throw new CannotAlign('walls', 'must be more than nothing.');
        }
        $now = $given->oneOr('flow', 100, Dimension::Ratio);
        $spread = max($walls) - min($walls);

        return new Outcome(
            [
                Outcome::figure(
                    'flow',
                    'Flow to set',
                    ($now * $wanted) / $mean,
                    '%',
                    ($now * $given->accuracy()) / sqrt(count($walls)) / $mean,
                ),
                Outcome::figure('wall', 'Wall, on average', $mean, 'mm', $given->accuracy() / sqrt(count($walls))),
                Outcome::figure('spread', 'Thickest less thinnest', $spread, 'mm'),
            ],
            ['new = old × wanted / measured'],
            [
                $spread > 0.06
                    ? 'The sides differ: a frame out of square or a nozzle that is worn, before flow.'
                    : 'Only for this filament and this nozzle; steps of the extruder first.',
            ],
            [],
            abs($mean - $wanted),
            $given->has('limit') ? $given->positive('limit') : null,
            $given->accuracy() / sqrt(count($walls)),
        );
    }
}
