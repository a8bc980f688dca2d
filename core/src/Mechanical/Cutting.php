<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical;

use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/** Cutting data: feed, chip, power and time from cutter, speed and material. */
final class Cutting
{
    /** f_z = v_f / (z·n) */
    public static function chipLoad(Quantity $feed, Quantity $flutes, Quantity $speed): Quantity
    {
        return Quantity::of($feed->in('mm/s') / ($flutes->in('') * $speed->in('rev/s')), 'mm');
    }

    /** Feed for a chip of this thickness, bolder below half the width: v_f = f_z·z·n / thinning. */
    public static function feed(Quantity $chip, Quantity $flutes, Quantity $speed, Quantity $stepOver): Quantity
    {
        return Quantity::of(
            $chip->in('mm') * $flutes->in('') * $speed->in('rev/s') * self::thinning($stepOver),
            'mm/s',
        );
    }

    /** How much bolder a cut below half the width may be fed: 1/(2√(s(1−s))), s the share of the diameter. */
    public static function thinning(Quantity $stepOver): float
    {
        $s = $stepOver->in('');

        return $s <= 0 || $s >= 0.5 ? 1.0 : 1 / (2 * sqrt($s * (1 - $s)));
    }

    /** P = removal × energy */
    public static function power(Quantity $removal, string $material): ?Quantity
    {
        $energy = Materials::cuttingEnergies()[$material] ?? null;

        return $energy === null ? null : Quantity::of($removal->in('mm³/s') * $energy, 'W');
    }

    /** Speed of the rim: v = π·d·n */
    public static function rim(Quantity $diameter, Quantity $speed): Quantity
    {
        return Quantity::of(M_PI * $diameter->in('m') * $speed->in('rev/s'), 'm/s');
    }

    /**
     * All figures of one cut.
     *
     * @param  Quantity  $stepOver  width of the cut, as a share of the diameter
     * @return array{feed: float, thinning: float, removal: float, power: float, rim: float} mm/min, share of the chip,
     *     mm³/s, W, m/s
     */
    public static function figures(
        Quantity $diameter,
        int $flutes,
        Quantity $speed,
        Quantity $chip,
        Quantity $stepOver,
        Quantity $depth,
        string $material,
    ): array {
        $feed = self::feed($chip, Quantity::ratio($flutes), $speed, $stepOver);
        $removal = Quantity::of(
            $feed->in('mm/s') * $diameter->in('mm') * $stepOver->in('') * $depth->in('mm'),
            'mm³/s',
        );

        return [
            'feed' => round($feed->in('mm/min'), 1),
            'thinning' => round(self::thinning($stepOver), 3),
            'removal' => round($removal->in('mm³/s'), 2),
            'power' => round(self::power($removal, $material)?->in('W') ?? 0.0, 1),
            'rim' => round(self::rim($diameter, $speed)->in('m/s'), 2),
        ];
    }
}
