<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity;

use Magpie\Core\Quantity\Exception\UnknownUnit;

/**
 * Every unit the trade writes, found by symbol or by one of its spellings.
 */
final class Units
{
    /** @var array<string, Unit>|null spelling → unit */
    private static ?array $spellings = null;

    /** @var array<string, Unit> what was asked for before, as it was spelt */
    private static array $asked = [];

    /** @var array<string, list<array{string, Unit}>>|null lower-case spelling → as it is written, unit */
    private static ?array $folded = null;

    /** Where milli and mega are told apart by the capital alone, and both are met. */
    private const BY_CAPITAL = [
        Dimension::Voltage,
        Dimension::Current,
        Dimension::Power,
        Dimension::Resistance,
        Dimension::Frequency,
        Dimension::Inductance,
        Dimension::Capacitance,
        Dimension::Charge,
        Dimension::Energy,
        Dimension::Force,
        Dimension::Torque,
        Dimension::Pressure,
    ];

    /**
     * @throws UnknownUnit
     */
    public static function named(string $spelling): Unit
    {
        if (isset(self::$asked[$spelling])) {
            return self::$asked[$spelling];
        }
        self::load();

        return self::$asked[$spelling] = self::lookUp($spelling);
    }

    /**
     * @throws UnknownUnit
     */
    private static function lookUp(string $spelling): Unit
    {
        $key = self::normalise($spelling);
        if (isset(self::$spellings[$key])) {
            return self::$spellings[$key];
        }
        $candidates = array_values(
            array_filter(
                self::$folded[mb_strtolower($key)] ?? [],
                static fn (array $c): bool => ! self::changesPrefix($key, ...$c),
            ),
        );
        if (count($candidates) === 1) {
            return $candidates[0][1];
        }
        throw $candidates === [] && isset(self::$folded[mb_strtolower($key)])
            ? UnknownUnit::capital($spelling)
            : UnknownUnit::spelt($spelling);
    }

    /** Whether a forgiving reading would take mega for milli, or milli for mega. */
    private static function changesPrefix(string $given, string $spelling, Unit $unit): bool
    {
        return $given[0] !== $spelling[0] &&
            strtolower($spelling[0]) === 'm' &&
            in_array($unit->dimension, self::BY_CAPITAL, true);
    }

    /**
     * @return list<string> symbols of the units that measure this dimension
     */
    public static function symbolsOf(Dimension $dimension): array
    {
        self::load();
        $symbols = [];
        foreach (self::$spellings ?? [] as $unit) {
            if ($unit->measures($dimension)) {
                $symbols[$unit->symbol] = true;
            }
        }

        return array_keys($symbols);
    }

    /**
     * @return list<string> every spelling of a unit, as the trade writes it; none of the bare number
     */
    public static function spellings(): array
    {
        $all = [];
        foreach (self::table() as $dimension => $units) {
            foreach ($units as $symbol => $row) {
                array_push($all, ...array_map(strval(...), [$symbol, ...($row[1] ?? [])]));
            }
        }

        return array_values(array_filter($all, static fn (string $s): bool => preg_match('/\D/', $s) === 1));
    }

    private static function normalise(string $spelling): string
    {
        $spelling = strtr(trim($spelling), [
            '·' => ' ',
            '⋅' => ' ',
            '*' => ' ',
            '-' => ' ',
            'µ' => 'u',
            'μ' => 'u',
            '^2' => '²',
            '^3' => '³',
            '^4' => '⁴',
            'Ω' => 'Ω',
            '″' => '"',
        ]);

        return (string) preg_replace('/[\s.]+/u', '', $spelling);
    }

    private static function load(): void
    {
        if (self::$spellings !== null) {
            return;
        }
        self::$spellings = [];
        $folded = [];
        foreach (self::table() as $dimension => $units) {
            foreach ($units as $symbol => $row) {
                $unit =
                    $symbol === 'AWG'
                        ? Unit::wireGauge()
                        : Unit::linear($symbol, Dimension::from($dimension), $row[0], $row[2] ?? 0.0);
                foreach ([$symbol, ...$row[1] ?? []] as $spelling) {
                    $key = self::normalise($spelling);
                    self::$spellings[$key] = $unit;
                    $folded[mb_strtolower($key)][$unit->symbol.$dimension] = [$key, $unit];
                }
            }
        }
        self::$folded = array_map(array_values(...), $folded);
    }

    /**
     * @return array<string, array<string, array{0: float, 1?: list<string>, 2?: float}>> dimension → symbol → factor to SI,
     *     further spellings, offset
     */
    private static function table(): array
    {
        static $table = null;
        /** @var array<string, array<string, array{0: float, 1?: list<string>, 2?: float}>> $table */
        $table ??= require dirname(__DIR__, 2).'/reference/units.php';

        return $table;
    }
}
