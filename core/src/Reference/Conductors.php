<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

use Magpie\Core\Quantity\Quantity;

/**
 * What a copper conductor resists and what it may carry.
 *
 * Sources: ASTM B258 (gauge sizes), IEC 60028 (1.7241e-8 Ω·m at 20 °C), IEC 60228 class 5, IEC 60204-1 table 6,
 * NFPA 79 small conductors, IEC 60364-5-52 grouping; reference/conductors.php marks the rows given from memory.
 */
final class Conductors
{
    private const RESISTIVITY = 1.7241e-8;

    /** Of copper near 20 °C, for a kelvin (IEC 60028). */
    private const COEFFICIENT = 0.00393;

    /** Temperature PVC bears for long, which the ampacity tables let a conductor reach (IEC 60204-1, from memory). */
    private const INSULATION = 70.0;

    /**
     * Resistance of one conductor, one way, at 20 °C.
     *
     * @return Quantity line resistance, in Ω/km: the class 5 maximum for a listed metric size, else from the
     * resistivity of copper
     */
    public static function resistance(Quantity $size): Quantity
    {
        $listed = self::table()['class5_resistance'];
        if ($size->unit->symbol !== 'AWG') {
            foreach ($listed as $mm2 => $ohmsPerKm) {
                if ($size->compare(Quantity::of($mm2, 'mm²')) === 0) {
                    return Quantity::of($ohmsPerKm, 'Ω/km');
                }
            }
        }

        return Quantity::of(self::RESISTIVITY / $size->in('m²'), 'Ω/m')->to('Ω/km');
    }

    /**
     * The same of a stranded conductor: its strands are longer than it is, by as much as class 5 allows the listed size
     * nearest to it (IEC 60228).
     */
    public static function strandedResistance(Quantity $size): Quantity
    {
        static $known = [];

        return $known[$size->text()] ??= self::stranded($size);
    }

    private static function stranded(Quantity $size): Quantity
    {
        $solid = Quantity::of(self::RESISTIVITY / $size->in('m²'), 'Ω/m')->to('Ω/km');
        $plain = self::resistance($size);
        if ($plain->exceeds($solid)) {
            return $plain;
        }
        $nearest = null;
        foreach (self::table()['class5_resistance'] as $mm2 => $ohmsPerKm) {
            $far = abs(log($size->in('mm²') / (float) $mm2));
            if ($nearest === null || $far < $nearest[0]) {
                $nearest = [$far, $ohmsPerKm / ((self::RESISTIVITY / ((float) $mm2 * 1e-6)) * 1000)];
            }
        }

        return $solid->times(max(1.0, $nearest[1] ?? 1.0));
    }

    /** By how much more copper resists at a temperature than at 20 °C. */
    public static function warmth(float $celsius): float
    {
        return 1 + self::COEFFICIENT * ($celsius - 20);
    }

    /** How warm a conductor gets: its air, and the square of its load against what it may carry. In °C. */
    public static function temperature(float $air, float $loadShare): float
    {
        return $air + max(0.0, self::INSULATION - $air) * $loadShare ** 2;
    }

    /**
     * What one conductor may carry before any correction, and the row it was taken from. A size between two rows
     * takes the thinner one.
     *
     * @param  string  $method  B1, B2, C or E of IEC 60204-1
     * @return array{Quantity, int, string}|null ampacity, ambient of the table in °C, the row in words; null when
     * thinner than any row
     */
    public static function ampacity(Quantity $size, string $method): ?array
    {
        $table = self::table();
        $gauge = $size->unit->symbol === 'AWG';
        $mm2 = $size->in('mm²');
        if ((! $gauge && $mm2 >= 0.75 - 1e-9) || ($gauge && $size->in('AWG') < 15.999)) {
            $row = null;
            foreach (array_keys($table['ampacity']) as $listed) {
                $row = (float) $listed <= $mm2 * (1 + 1e-9) ? (string) $listed : $row;
            }

            return $row === null
                ? null
                : [
                    Quantity::of($table['ampacity'][$row][$method], 'A'),
                    40,
                    "IEC 60204-1 table 6, {$row} mm², method {$method}",
                ];
        }
        $number = $size->in('AWG');
        foreach (array_reverse($table['small_ampacity'], true) as $listed => $amps) {
            if ($listed >= $number - 1e-6) {
                return [Quantity::of($amps, 'A'), 30, "NFPA 79 small conductors, {$listed} AWG"];
            }
        }

        return null;
    }

    /** What a conductor laid by a method may carry in this air; null where no table goes so far. */
    public static function ampacityIn(Quantity $air, Quantity $size, string $method): ?Quantity
    {
        $row = self::ampacity($size, $method);
        $factor = $row === null ? null : self::ambientFactor($air, $row[1]);

        return $row === null || $factor === null ? null : $row[0]->times($factor);
    }

    /**
     * Factor for the air around it, between rows by straight line; null where no table goes.
     *
     * @param  int  $tableAmbient  °C the ampacity row was given at
     */
    public static function ambientFactor(Quantity $ambient, int $tableAmbient): ?Quantity
    {
        $rows = self::table()['ambient'];
        $t = max($ambient->in('°C'), 30.0);
        $previous = null;
        foreach ($rows as $row => $factor) {
            if ($t <= $row + 1e-9) {
                $value =
                    $previous === null
                        ? $factor
                        : $rows[$previous] + (($factor - $rows[$previous]) * ($t - $previous)) / ($row - $previous);

                return Quantity::ratio($value / $rows[$tableAmbient]);
            }
            $previous = $row;
        }

        return null;
    }

    /** Factor for loaded circuits lying together, this one counted; beyond the table its last row. */
    public static function groupingFactor(int $circuits): Quantity
    {
        $rows = self::table()['grouping'];
        $factor = (float) end($rows);
        foreach (array_reverse($rows, true) as $row => $value) {
            $factor = $circuits <= $row ? $value : $factor;
        }

        return Quantity::ratio($factor);
    }

    /** Newtons a crimp on a conductor of this size must stand; null when the table has no such gauge. */
    public static function pull(string $size): ?int
    {
        return preg_match('/^(\d+) AWG$/', $size, $m) === 1 ? self::table()['pull'][(int) $m[1]] ?? null : null;
    }

    /**
     * @return list<string> sizes sold by gauge, from the thinnest
     */
    public static function gauges(): array
    {
        return self::table()['gauges'];
    }

    /**
     * @return list<string> sizes sold by area, from the thinnest
     */
    public static function sections(): array
    {
        return self::table()['sections'];
    }

    /**
     * @return array{class5_resistance: array<int|string, float>, ampacity: array<int|string, array<string, float>>,
     *     small_ampacity: array<int, float>, ambient: array<int, float>, grouping: array<int, float>,
     *     pull: array<int, int>, gauges: list<string>, sections: list<string>}
     */
    private static function table(): array
    {
        /**
         * @var array{class5_resistance: array<int|string, float>, ampacity: array<int|string, array<string, float>>,
         *     small_ampacity: array<int, float>, ambient: array<int, float>, grouping: array<int, float>,
         *     pull: array<int, int>, gauges: list<string>, sections: list<string>} $table
         */
        $table = Tables::named('conductors');

        return $table;
    }
}
