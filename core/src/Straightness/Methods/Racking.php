<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Two sides of one axis, each with its own sensor: how far one is ahead (RU-08). */
final class Racking implements Method
{
    public function key(): string
    {
        return 'racking';
    }

    public function title(): string
    {
        return 'Two sides of one axis';
    }

    public function about(): string
    {
        return 'One side ahead of the other turns the gantry: the angle, and the offset to give that side.';
    }

    public function asks(): array
    {
        return [
            new Ask('ahead', 'The second side is ahead by', '0.5 mm'),
            new Ask('span', 'From side to side', '800 mm'),
            new Ask('limit', 'Most it may be ahead', '0.1 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        $ahead = $given->one('ahead');
        $span = $given->positive('span');

        return new Outcome(
            [
                Outcome::figure(
                    'angle',
                    'Turned by',
                    rad2deg(atan2($ahead, $span)),
                    '°',
                    rad2deg($given->accuracy() / $span),
                ),
                Outcome::figure('slope', 'That is', ($ahead / $span) * 1000, 'mm/m'),
            ],
            ['atan(ahead / span)'],
            [
                abs($ahead) <= $given->accuracy()
                    ? 'Neither side is ahead, as far as the instrument can tell.'
                    : sprintf('Give the second side an offset of %.3f mm, home again, and read again.', -$ahead),
            ],
            [],
            abs($ahead),
            $given->has('limit') ? $given->positive('limit') : null,
            $given->accuracy(),
        );
    }
}
