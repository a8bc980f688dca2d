<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/** What a plate or panel weighs by its size, where nobody has weighed it: holes and cut-outs are not taken off. */
final class SheetMass
{
    /**
     * Null where its size or its material is not known, or is of no density known here.
     *
     * @throws \Magpie\Core\Inspection\InputMissing
     */
    public static function of(Inquiry $inquiry, Fitted $fitted, string $symbol): ?Quantity
    {
        $sides = [
            ['thickness', 't'],
            ['width', 'w'],
            [$fitted->part->family->field('depth') === null ? 'length' : 'depth', 'd'],
        ];
        $density = Materials::density($fitted->part->spec('material')?->choice() ?? '');
        if ($density === null) {
            return null;
        }
        foreach ($sides as [$key]) {
            if ($fitted->part->spec($key)?->highest() === null) {
                return null;
            }
        }
        $inquiry->tryChoice($fitted, 'material');
        $volume = 1.0;
        $symbols = [];
        foreach ($sides as [$key, $side]) {
            $symbols[$side] = $inquiry->read($fitted, $key, $side, Bound::Highest);
            $volume *= $symbols[$side]->in('m');
        }

        return $inquiry->work(
            "{$fitted->need->role} by its size, whole",
            "{$symbol} = t × w × d × ρ",
            $symbols + ['ρ' => Quantity::of($density, 'kg/m³')],
            Quantity::of($volume * $density, 'kg'),
            'kg',
        );
    }
}
