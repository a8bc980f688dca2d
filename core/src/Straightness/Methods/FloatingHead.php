<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Heights of a floating torch head: where it rests, touches, trips and lets go (RU-14). */
final class FloatingHead implements Method
{
    public function key(): string
    {
        return 'floating-head';
    }

    public function title(): string
    {
        return 'Heights of a floating head';
    }

    public function about(): string
    {
        return 'Lowered onto the sheet: where the tip touches and where the switch trips. The tip is that much above the place it tripped at; the retract is the offset and the wanted height.';
    }

    public function asks(): array
    {
        return [
            new Ask('touches', 'Height at which the tip touches, each time', '2.10 2.12 2.09 mm', true),
            new Ask('trips', 'Height at which the switch trips', '0.62 0.60 0.64 mm', true),
            new Ask('lets_go', 'Height at which it lets go on the way up', '0.95 0.97 0.94 mm', true, false),
            new Ask('wanted', 'Pierce height wanted', '3.8 mm'),
            new Ask('limit', 'Most the offset may spread', '0.1 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$touches, $trips] = $given->rows(['touches', 'trips'], 1);
        $offsets = array_map(static fn (float $a, float $b): float => $a - $b, $touches, $trips);
        $offset = array_sum($offsets) / count($offsets);
        $wanted = $given->positive('wanted');
        $spread = max($offsets) - min($offsets);
        $says = [
            'Repeat it after every knock: the slide may have shifted.',
            'A head that is knocked off has to put the torch out.',
        ];
        if ($offset < 0) {
            array_unshift(
                $says,
                'It trips before it touches: the switch is set too high, and it will pierce too near.',
            );
        }
        $figures = [
            Outcome::figure(
                'offset',
                'From trip to touch',
                $offset,
                'mm',
                $given->accuracy() * sqrt(2 / count($offsets)),
            ),
            Outcome::figure('retract', 'Retract after the trip', $offset + $wanted, 'mm'),
            Outcome::figure('spread', 'Spread of the offset', $spread, 'mm'),
        ];
        if ($given->has('lets_go')) {
            [, $back] = $given->rows(['trips', 'lets_go'], 1);
            $figures[] = Outcome::figure(
                'differential',
                'From trip to release',
                array_sum($back) / count($back) - array_sum($trips) / count($trips),
                'mm',
            );
        }

        return new Outcome(
            $figures,
            ['offset = touch − trip; retract = offset + wanted height'],
            $says,
            [],
            $spread,
            $given->has('limit') ? $given->positive('limit') : null,
            $given->accuracy() * 2,
        );
    }
}
