<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

use Magpie\Core\Quantity\Quantity;

/** Metric threads and what belongs to them, from core/reference/fasteners.php; null for a thread that is not there. */
final class Fasteners
{
    private const PROOF = 580e6;

    /**
     * @return array<string, float> in mm by thread
     */
    public static function pitches(): array
    {
        return self::column('pitch');
    }

    public static function pitch(string $thread): ?Quantity
    {
        return self::length('pitch', $thread);
    }

    public static function nutHeight(string $thread): ?Quantity
    {
        return self::length('nut_height', $thread);
    }

    /** Clearance hole, medium fit. */
    public static function clearance(string $thread): ?Quantity
    {
        return self::length('clearance', $thread);
    }

    /** Key of a socket head, across flats. */
    public static function key(string $thread, string $head): ?Quantity
    {
        return match ($head) {
            'hexagon' => null,
            'button', 'countersunk' => self::length('small_key', $thread),
            default => self::length('key', $thread),
        };
    }

    /** Thread engagement wanted in a material, in diameters. */
    public static function engagement(string $material): ?Quantity
    {
        $diameters = self::column('engagement')[$material] ?? null;

        return $diameters === null ? null : Quantity::ratio($diameters);
    }

    /**
     * Tightening torque of a class 8.8 screw: T = K × F × d, F 75 % of its proof load, K 0.2; less into what is softer
     * than steel.
     */
    public static function torque(string $thread, string $into = 'steel'): ?Quantity
    {
        $area = self::column('stress_area')[$thread] ?? null;
        $softer = self::column('softer')[$into] ?? null;

        return $area === null || $softer === null
            ? null
            : Quantity::of(
                0.2 * 0.75 * self::PROOF * $area * 1e-6 * (float) substr($thread, 1) * 1e-3 * $softer,
                'N m',
            );
    }

    /** The shortest screw sold that is no shorter than this, nor longer than that; null where there is none. */
    public static function lengthFor(Quantity $least, ?Quantity $most = null): ?Quantity
    {
        /** @var array{lengths: list<int>} $table */
        $table = Tables::named('fasteners');
        foreach ($table['lengths'] as $length) {
            if ($length >= $least->in('mm') - 1e-9) {
                return $most !== null && $length > $most->in('mm') + 1e-9 ? null : Quantity::of($length, 'mm');
            }
        }

        return null;
    }

    private static function length(string $column, string $thread): ?Quantity
    {
        $mm = self::column($column)[$thread] ?? null;

        return $mm === null ? null : Quantity::of($mm, 'mm');
    }

    /**
     * @return array<string, float>
     */
    private static function column(string $name): array
    {
        /** @var array<string, array<string, float>> $table */
        $table = Tables::named('fasteners');

        return $table[$name];
    }
}
