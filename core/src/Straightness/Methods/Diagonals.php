<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness\Methods;

use Magpie\Core\Straightness\Ask;
use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Given;
use Magpie\Core\Straightness\Method;
use Magpie\Core\Straightness\Outcome;

/** Squareness of a frame or gantry from its two diagonals (C3). */
final class Diagonals implements Method
{
    public function key(): string
    {
        return 'diagonals';
    }

    public function title(): string
    {
        return 'Frame or gantry by its diagonals';
    }

    public function about(): string
    {
        return 'The angle it is off from square: asin((d₁² − d₂²) / 4ab).';
    }

    public function asks(): array
    {
        return [
            new Ask('a', 'One side', '1000 mm'),
            new Ask('b', 'The other side', '750 mm'),
            new Ask('d1', 'One diagonal', '1251 mm'),
            new Ask('d2', 'The other', '1249 mm'),
            new Ask('limit', 'Most it may be off over the longer side', '0.5 mm', needed: false),
            new Ask('accuracy', 'A division of the tape', '0.5 mm', needed: false),
        ];
    }

    public function work(Given $given): Outcome
    {
        [$a, $b, $d1, $d2] = array_map($given->positive(...), ['a', 'b', 'd1', 'd2']);
        $sine = ($d1 ** 2 - $d2 ** 2) / (4 * $a * $b);
        if (abs($sine) > 0.2) {
            throw new CannotAlign(
                'd1',
                'these sides and diagonals do not belong to one frame: it would be off by more than 11°.',
            );
        }
        // A parallelogram's diagonals follow from its sides; where they do not, a figure was misread.
        $whole = $d1 ** 2 + $d2 ** 2 - 2 * ($a ** 2 + $b ** 2);
        $misread = abs($whole) / (2 * ($d1 + $d2));
        $angle = rad2deg(asin($sine));
        $accuracy = $given->oneOr('accuracy', 0.5);
        $doubt = rad2deg((($accuracy * ($d1 + $d2)) / 2 / (2 * $a * $b)) * sqrt(2));
        $over = abs($sine) * max($a, $b);
        $says = [
            abs($angle) <= $doubt
                ? 'Square, as far as the tape can tell.'
                : sprintf(
                    'Push along the %s diagonal: it is %.2f mm longer.',
                    $d1 > $d2 ? 'first' : 'second',
                    abs($d1 - $d2),
                ),
        ];
        if ($misread > 5 * $accuracy) {
            $says[] = sprintf(
                'The diagonals and the sides do not fit each other by %.1f mm: measure once more, from the same points.',
                $misread,
            );
        }

        return new Outcome(
            [
                Outcome::figure('angle', 'Off from square', $angle, '°', $doubt),
                Outcome::figure('slope', 'That is', $sine * 1000, 'mm/m', deg2rad($doubt) * 1000),
                Outcome::figure('over', 'Over the longer side', $over, 'mm'),
            ],
            [
                'asin((d₁² − d₂²) / 4ab)',
                sprintf('asin((%.6g² − %.6g²) / (4 × %.6g × %.6g)) = %.4f°', $d1, $d2, $a, $b, $angle),
            ],
            $says,
            [],
            $over,
            $given->has('limit') ? $given->positive('limit') : null,
            deg2rad($doubt) * max($a, $b),
        );
    }
}
