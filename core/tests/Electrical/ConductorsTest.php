<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ConductorsTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, float}>
     */
    public static function resistances(): iterable
    {
        // Gauges: ASTM B258 sizes with IEC 60028 copper, as the handbook prints them (Ω/km at 20 °C).
        yield '12 AWG' => ['12', 'AWG', 5.21];
        yield '18 AWG' => ['18', 'AWG', 20.9];
        yield '24 AWG' => ['24', 'AWG', 84.2];
        // IEC 60228 class 5 maxima.
        yield '0.5 mm²' => ['0.5', 'mm²', 39.0];
        yield '0.75 mm²' => ['0.75', 'mm²', 26.0];
        yield '1.5 mm²' => ['1.5', 'mm²', 13.3];
        yield '2.5 mm²' => ['2.5', 'mm²', 7.98];
        yield '4 mm²' => ['4', 'mm²', 4.95];
    }

    #[DataProvider('resistances')]
    public function test_resistance_by_the_published_tables(string $size, string $unit, float $ohmsPerKm): void
    {
        self::assertEqualsWithDelta(
            $ohmsPerKm,
            Conductors::resistance(Quantity::of($size, $unit))->in('Ω/km'),
            $ohmsPerKm * 0.003,
        );
    }

    /**
     * @return iterable<string, array{string, string, string, float|null}>
     */
    public static function ampacities(): iterable
    {
        // IEC 60204-1 table 6 at 40 °C.
        yield '0.75 mm² in free air' => ['0.75', 'mm²', 'E', 10.4];
        yield '1.5 mm² enclosed' => ['1.5', 'mm²', 'B2', 13.1];
        yield '2.5 mm² clipped' => ['2.5', 'mm²', 'C', 21.0];
        yield 'between two rows, the thinner' => ['3', 'mm²', 'E', 22.0];
        // NFPA 79 small conductors at 30 °C (from memory).
        yield '16 AWG' => ['16', 'AWG', 'E', 10.0];
        yield '18 AWG' => ['18', 'AWG', 'E', 7.0];
        yield 'an odd gauge takes the next finer' => ['19', 'AWG', 'E', 5.0];
        yield '0.5 mm² takes the next finer gauge, 22' => ['0.5', 'mm²', 'E', 3.0];
        yield '14 AWG is 2.08 mm², so the 1.5 mm² row' => ['14', 'AWG', 'E', 16.1];
        yield 'thinner than any row' => ['36', 'AWG', 'E', null];
    }

    #[DataProvider('ampacities')]
    public function test_ampacity_by_the_published_tables(
        string $size,
        string $unit,
        string $method,
        ?float $amps,
    ): void {
        $row = Conductors::ampacity(Quantity::of($size, $unit), $method);

        self::assertSame($amps, $row === null ? null : $row[0]->in('A'));
    }

    public function test_corrections_for_air_and_company(): void
    {
        // IEC 60204-1 table D.1 by its rows, and half way between two.
        self::assertEqualsWithDelta(1.15, Conductors::ambientFactor(Quantity::of(30, '°C'), 40)?->in(''), 1e-9);
        self::assertEqualsWithDelta(0.82, Conductors::ambientFactor(Quantity::of(50, '°C'), 40)?->in(''), 1e-9);
        self::assertEqualsWithDelta(0.955, Conductors::ambientFactor(Quantity::of(42.5, '°C'), 40)?->in(''), 1e-9);
        self::assertEqualsWithDelta(1 / 1.15, Conductors::ambientFactor(Quantity::of(40, '°C'), 30)?->in(''), 1e-9);
        self::assertNull(Conductors::ambientFactor(Quantity::of(61, '°C'), 40), 'No table goes beyond 60 °C.');
        // Cool air is no licence.
        self::assertEqualsWithDelta(1.15, Conductors::ambientFactor(Quantity::of(-10, '°C'), 40)?->in(''), 1e-9);
        self::assertSame(
            [1.0, 0.8, 0.65, 0.5, 0.45, 0.38],
            array_map(static fn (int $n): float => Conductors::groupingFactor($n)->in(''), [1, 2, 4, 9, 10, 50]),
        );
    }
}
