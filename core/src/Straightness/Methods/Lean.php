<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Lean of a post or plate from two gaps, and the shim. */
final class Lean implements Method
{
    public function key(): string
    {
        return 'lean';
    }

    public function title(): string
    {
        return 'Lean, from two gaps';
    }

    public function about(): string
    {
        return 'A square held to it, the gap at the top and at the bottom: the slope, and the shim under one side.';
    }

    public function asks(): array
    {
        return [
            new Ask('top', 'Gap at the top', '0.30 mm'),
            new Ask('bottom', 'Gap at the bottom', '0.05 mm'),
            new Ask('height', 'From gap to gap', '200 mm'),
            new Ask('screws', 'Distance of the screws of its foot', '60 mm', needed: false),
            new Ask('limit', 'Most it may differ', '0.05 mm', needed: false),
            new Ask('accuracy', 'A leaf of the feeler gauge', '0.05 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        $difference = $given->one('top') - $given->one('bottom');
        $height = $given->positive('height');
        $slope = $difference / $height;
        $doubt = $given->oneOr('accuracy', 0.05) * sqrt(2);
        $screws = $given->has('screws') ? $given->positive('screws') : null;

        return new Outcome(
            [
                Outcome::figure(
                    'slope',
                    'Leans by',
                    $slope * 1000,
                    'mm/m',
                    ($doubt / $height) * 1000,
                ),
                Outcome::figure('angle', 'That is', rad2deg(atan($slope)), '°'),
                ...$screws === null ? [] : [Outcome::figure('shim', 'Shim', abs($slope) * $screws, 'mm')],
            ],
            ['(top − bottom) / height'],
            [
                $difference > $doubt
                    ? 'It leans away from the square at the top.'
                    : ($difference < -$doubt
                        ? 'It leans towards the square at the top.'
                        : 'It stands, as far as the gauge can tell.'),
            ],
            [],
            abs($difference),
            $given->has('limit') ? $given->positive('limit') : null,
            $doubt,
        );
    }
}
