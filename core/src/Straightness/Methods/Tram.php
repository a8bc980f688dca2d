<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** A spindle swept over the table: how it leans, and the shims (C5). */
final class Tram implements Method
{
    public function key(): string
    {
        return 'tram';
    }

    public function title(): string
    {
        return 'A spindle against the table';
    }

    public function about(): string
    {
        return 'A dial on an arm turned by hand: the difference across the sweep over its diameter; a shim is the slope times the distance of the screws.';
    }

    public function asks(): array
    {
        return [
            new Ask('diameter', 'Diameter of the sweep', '200 mm'),
            new Ask('left', 'Left', '0.00 mm'),
            new Ask('right', 'Right', '0.06 mm'),
            new Ask('front', 'Front', '0.01 mm'),
            new Ask('back', 'Back', '0.03 mm'),
            new Ask('screws', 'Distance of the screws, up and down', '60 mm', needed: false),
            new Ask('limit', 'Most across the sweep', '0.02 mm', needed: false),
            new Ask('accuracy', 'A division of the instrument', '0.01 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        $d = $given->positive('diameter');
        [$left, $right, $front, $back] = array_map($given->one(...), ['left', 'right', 'front', 'back']);
        $accuracy = $given->accuracy() * sqrt(2);
        $side = ($right - $left) / $d;
        $nod = ($back - $front) / $d;
        $screws = $given->has('screws') ? $given->positive('screws') : null;
        $says = [];
        foreach ([['right', 'left', $side], ['back', 'front', $nod]] as [$more, $less, $slope]) {
            if (abs($slope * $d) > $accuracy) {
                $says[] =
                    sprintf(
                        'The dial is pressed in more on the %s by %.3f mm.',
                        $slope > 0 ? $more : $less,
                        abs($slope * $d),
                    ).
                    ($screws === null
                        ? ''
                        : sprintf(' A shim of %.3f mm at one pair of screws takes it away.', abs($slope) * $screws));
            }
        }

        return new Outcome(
            [
                Outcome::figure('side', 'Leans sideways', $side * 1000, 'mm/m', ($accuracy / $d) * 1000),
                Outcome::figure('nod', 'Nods', $nod * 1000, 'mm/m', ($accuracy / $d) * 1000),
                ...$screws === null
                    ? []
                    : [
                        Outcome::figure('shim_side', 'Shim sideways', abs($side) * $screws, 'mm'),
                        Outcome::figure('shim_nod', 'Shim for the nod', abs($nod) * $screws, 'mm'),
                    ],
            ],
            ['(right − left) / diameter, (back − front) / diameter'],
            $says === [] ? ['Nothing to shim: it is within what the dial can tell.'] : $says,
            [],
            max(abs($right - $left), abs($back - $front)),
            $given->has('limit') ? $given->positive('limit') : null,
            $accuracy,
        );
    }
}
