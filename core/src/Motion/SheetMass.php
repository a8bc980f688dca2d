<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;

/** What a plate or panel weighs by its size, where nobody has weighed it: holes and cut-outs are not taken off. */
final class SheetMass
{
    /** kg/m³; metals as handbooks list them, wood and plastics the heavier of what is sold (from memory). */
    private const DENSITY = [
        'aluminium' => 2700.0,
        'steel' => 7850.0,
        'stainless steel' => 8000.0,
        'brass' => 8500.0,
        'plywood' => 750.0,
        'acrylic' => 1190.0,
        'polycarbonate' => 1200.0,
        'glass' => 2500.0,
        'plastic' => 1500.0,
        'composite' => 2000.0,
    ];

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
        $density = self::DENSITY[$fitted->part->spec('material')?->choice() ?? ''] ?? null;
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
