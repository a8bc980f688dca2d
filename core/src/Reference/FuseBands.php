<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

/**
 * The slow end of the time a fuse or breaker may take to open, by how many times its rating goes through it.
 *
 * Sources: ISO 8820-3, IEC 60127-2, IEC 60898-1, IEC 60364-4-43 §434.5.2; reference/fuses.php, all from memory.
 */
final class FuseBands
{
    private const RESTS_ON_SPEED = ['glass', 'ceramic'];

    /**
     * Bands a fuse may have, by what is known of it: one, or all it may be.
     *
     * @param  string|null  $kind  as the sheet of a fuse has it
     * @return non-empty-list<string>
     */
    public static function bands(?string $kind, ?string $speed): array
    {
        if ($kind === null) {
            return ['blade', 'cartridge fast', 'cartridge slow', 'breaker', 'resettable'];
        }

        return match (true) {
            ! in_array($kind, self::RESTS_ON_SPEED, true) => [$kind],
            $speed === 'fast' => ['cartridge fast'],
            $speed === null => ['cartridge fast', 'cartridge slow'],
            default => ['cartridge slow'],
        };
    }

    /** How many times its rating it surely opens at, within an hour or so. */
    public static function surely(string $band): float
    {
        return (float) array_key_first(self::rows($band));
    }

    /**
     * Longest time to open; between two rows on a straight line of logarithms, beyond the last by the same I²t, or the same
     * time for a breaker.
     *
     * @param  float  $times  its rating that goes through it
     * @return float|null seconds; null where it need not open
     */
    public static function slowest(string $band, float $times): ?float
    {
        $before = null;
        foreach (self::rows($band) as $multiple => $seconds) {
            $multiple = (float) $multiple;
            if ($times <= $multiple * (1 + 1e-9)) {
                if ($times >= $multiple * (1 - 1e-9)) {
                    return $seconds;
                }
                if ($before === null) {
                    return null;
                }
                [$m, $s] = $before;

                return exp(log($s) + (log($seconds / $s) * log($times / $m)) / log($multiple / $m));
            }
            $before = [$multiple, $seconds];
        }

        if ($before === null || $band === 'breaker') {
            return $before[1] ?? null;
        }

        return $before[1] * ($before[0] / $times) ** 2;
    }

    /**
     * The most I²t it lets through at a current, in A²s; null where it need not open.
     *
     * @param  float|null  $seconds  in which it opens, where that is known
     */
    public static function letsThrough(string $band, float $rating, float $amps, ?float $seconds = null): ?float
    {
        $seconds ??= self::slowest($band, $amps / $rating);
        if ($seconds === null) {
            return null;
        }
        $energy = $amps ** 2 * $seconds;

        return $band === 'breaker' && $amps >= 10 * $rating
            ? min($energy, self::number('breaker_lets_through'))
            : $energy;
    }

    /** What a copper conductor in PVC stands before it is too hot, in A²s: k²S². */
    public static function stands(float $mm2): float
    {
        return (self::number('k') * $mm2) ** 2;
    }

    private static function number(string $name): float
    {
        /** @var array<string, float> $table */
        $table = Tables::named('fuses');

        return $table[$name];
    }

    /**
     * @return array<string, float>
     */
    private static function rows(string $band): array
    {
        /** @var array<string, array<string, float>> $table */
        $table = Tables::named('fuses');

        return $table[$band];
    }
}
