<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity;

/**
 * What a quantity of each kind can be in anything a person builds: far wider than any workshop, far narrower than a
 * slip of the keyboard. Common practice, no source.
 */
final class Bounds
{
    /** Least size that is not nought, and the largest, in the unit of the dimension. */
    private const OF = [
        'ratio' => [1e-9, 1e12],
        'voltage' => [1e-9, 1e6],
        'current' => [1e-12, 1e6],
        'power' => [1e-12, 1e9],
        'resistance' => [1e-9, 1e13],
        'line_resistance' => [1e-9, 1e9],
        'inductance' => [1e-12, 1e4],
        'capacitance' => [1e-15, 1e4],
        'charge' => [1e-12, 1e9],
        'energy' => [1e-9, 1e14],
        'length' => [1e-10, 1e5],
        'area' => [1e-14, 1e8],
        'volume' => [1e-18, 1e9],
        'second_moment' => [1e-20, 1e4],
        'mass' => [1e-9, 1e7],
        'density' => [1e-3, 1e5],
        'time' => [1e-9, 1e10],
        'frequency' => [1e-6, 1e12],
        'rotational_speed' => [1e-6, 1e6],
        'temperature' => [1e-3, 1e5],
        'temperature_difference' => [1e-6, 1e5],
        'temperature_coefficient' => [1e-9, 1e3],
        'thermal_resistance' => [1e-6, 1e6],
        'torque' => [1e-9, 1e9],
        'force' => [1e-9, 1e10],
        'inertia' => [1e-15, 1e6],
        'speed' => [1e-9, 1e5],
        'acceleration' => [1e-9, 1e7],
        'pressure' => [1e-6, 1e12],
        'flow' => [1e-18, 1e4],
        'angle' => [1e-9, 1e4],
    ];

    /** Why no size of its kind can be this, with what it can be; null when it can. */
    public static function refusal(Quantity $value): ?string
    {
        $dimension = $value->unit->dimension;
        $bounds = self::OF[$dimension->value] ?? null;
        $size = abs($value->in($dimension->unit()));
        if ($bounds === null || ($size <= $bounds[1] && ($size >= $bounds[0] || $size === 0.0))) {
            return null;
        }
        [$least, $most] = array_map(
            static fn (float $bound): string => Quantity::of($bound, $dimension->unit())->text(),
            $bounds,
        );

        return "{$value->text()} is no {$dimension->label()} of anything that is built; from {$least} to {$most} can be taken.";
    }

    /** As refusal(), between two sizes of the same kind, both allowed. */
    public static function outside(Quantity $value, Quantity $least, Quantity $most): ?string
    {
        return $value->isBelow($least) || $value->exceeds($most)
            ? "{$value->text()} cannot be; from {$least->text()} to {$most->text()} can be taken."
            : null;
    }
}
