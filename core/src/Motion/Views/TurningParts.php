<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Views;

use Magpie\Core\Machine\BodyMaterial;
use Magpie\Core\Machine\TurningBody;
use Magpie\Core\Quantity\Quantity;

/** Inertia of what turns, segment by segment, bores taken out: ½·m·(r_o² + r_i²). */
final class TurningParts
{
    /**
     * @param  list<array{outer: float, bore: float, length: float, material: string}>  $segments  mm
     * @return array{inertia: Quantity, mass: Quantity, parts: list<float>} kg cm² each
     */
    public static function of(array $segments): array
    {
        $sum = $mass = 0.0;
        $parts = [];
        foreach ($segments as $segment) {
            $body = new TurningBody(
                '',
                Quantity::of($segment['outer'], 'mm'),
                Quantity::of($segment['bore'], 'mm'),
                Quantity::of($segment['length'], 'mm'),
                BodyMaterial::from($segment['material']),
            );
            $one = $body->inertia()->in('kg cm²');
            $parts[] = round($one, 6);
            $sum += $one;
            $mass += $body->mass()->in('kg');
        }

        return [
            'inertia' => Quantity::of($sum, 'kg cm²'),
            'mass' => Quantity::of($mass, 'kg'),
            'parts' => $parts,
        ];
    }
}
