<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Views;

use Magpie\Core\Quantity\Quantity;

/** Inertia of what turns, segment by segment, bores taken out: ½·m·(r_o² + r_i²). */
final class TurningParts
{
    /** kg/m³, usual handbook values from memory. */
    public const DENSITY = ['steel' => 7850, 'aluminium' => 2700, 'brass' => 8500, 'plastic' => 1200];

    /**
     * @param  list<array{outer: float, bore: float, length: float, material: string}>  $segments  mm
     * @return array{inertia: Quantity, mass: Quantity, parts: list<float>} kg cm² each
     */
    public static function of(array $segments): array
    {
        $sum = $mass = 0.0;
        $parts = [];
        foreach ($segments as $segment) {
            [$out, $in] = [$segment['outer'] / 2000, $segment['bore'] / 2000];
            $m = (self::DENSITY[$segment['material']] * M_PI * ($out ** 2 - $in ** 2) * $segment['length']) / 1000;
            $one = 0.5 * $m * ($out ** 2 + $in ** 2);
            $parts[] = round($one * 1e4, 6);
            $sum += $one;
            $mass += $m;
        }

        return [
            'inertia' => Quantity::of($sum, 'kg m²')->to('kg cm²'),
            'mass' => Quantity::of($mass, 'kg'),
            'parts' => $parts,
        ];
    }
}
