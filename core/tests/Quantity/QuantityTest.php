<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Quantity;

use Eris\Generators;
use Eris\TestTrait;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;
use Magpie\Core\Quantity\Units;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class QuantityTest extends TestCase
{
    use TestTrait;

    /**
     * What builders type, what it is kept as, and its SI size.
     *
     * @return iterable<string, array{string, Dimension, string, float}>
     */
    public static function typed(): iterable
    {
        yield 'no space' => ['24V', Dimension::Voltage, '24 V', 24.0];
        yield 'a superscript' => ['0.75 mm²', Dimension::Area, '0.75 mm²', 0.75e-6];
        yield 'a plain two' => ['0.75mm2', Dimension::Area, '0.75 mm²', 0.75e-6];
        yield 'a gauge' => ['18 AWG', Dimension::Area, '18 AWG', 0.823e-6];
        yield 'a gauge the other way round' => ['AWG 18', Dimension::Area, '18 AWG', 0.823e-6];
        yield 'inches' => ['12 in', Dimension::Length, '12 in', 0.3048];
        yield 'an inch mark' => ['12"', Dimension::Length, '12 in', 0.3048];
        yield 'a fraction' => ['1 1/2 in', Dimension::Length, '1.5 in', 0.0381];
        yield 'a half' => ['1/4in', Dimension::Length, '0.25 in', 0.00635];
        yield 'ounce-inches' => ['283 oz-in', Dimension::Torque, '283 oz in', 1.99842];
        yield 'newton metres' => ['1.2 Nm', Dimension::Torque, '1.2 N m', 1.2];
        yield 'motor makers kilograms' => ['13 kg.cm', Dimension::Torque, '13 kgf cm', 1.27486];
        yield 'watts' => ['350 W', Dimension::Power, '350 W', 350.0];
        yield 'horse power' => ['1.25 hp', Dimension::Power, '1.25 hp', 932.125];
        yield 'a decimal comma' => ['1,5 kW', Dimension::Power, '1.5 kW', 1500.0];
        yield 'grouped thousands' => ['12,000,000 Hz', Dimension::Frequency, '12000000 Hz', 12e6];
        yield 'degrees' => ['24 degC', Dimension::Temperature, '24 °C', 297.15];
        yield 'fahrenheit' => ['212 °F', Dimension::Temperature, '212 °F', 373.15];
        yield 'a loss per kelvin' => ['-2 %/K', Dimension::TemperatureCoefficient, '-2 %/K', -0.02];
        yield 'a rotor' => ['300 g cm2', Dimension::Inertia, '300 g cm²', 3e-5];
        yield 'a share' => ['80 %', Dimension::Ratio, '80 %', 0.8];
        yield 'a count' => ['200', Dimension::Ratio, '200', 200.0];
        yield 'microsteps of nothing' => ['1e-7 kg m²', Dimension::Inertia, '0.0000001 kg m²', 1e-7];
        yield 'a true minus' => ['−5 °C', Dimension::Temperature, '-5 °C', 268.15];
    }

    #[DataProvider('typed')]
    public function test_what_builders_type_is_understood(
        string $text,
        Dimension $dimension,
        string $kept,
        float $si,
    ): void {
        $quantity = Quantity::parse($text, $dimension);

        self::assertSame($kept, $quantity->text());
        self::assertEqualsWithDelta($si, $quantity->in($dimension->unit()), abs($si) * 1e-4 + 1e-12);
    }

    /**
     * @return iterable<string, array{string, Dimension, string}>
     */
    public static function refused(): iterable
    {
        yield 'watts for amps' => ['350 W', Dimension::Current, 'is a power; a current is wanted'];
        yield 'a bare number' => ['24', Dimension::Voltage, 'has no unit'];
        yield 'a comma with two meanings' => ['1,500 W', Dimension::Power, 'two ways'];
        yield 'words' => ['plenty', Dimension::Power, 'no number'];
        yield 'an unknown unit' => ['3 furlongs', Dimension::Length, 'not a unit'];
        yield 'two numbers' => ['3 4 mm', Dimension::Length, 'not a unit'];
        yield 'nothing' => ['', Dimension::Length, 'no number'];
        yield 'beyond everything' => ['1e300 km', Dimension::Length, 'too large'];
        yield 'a fraction over nought' => ['1/0 in', Dimension::Length, 'no number'];
    }

    #[DataProvider('refused')]
    public function test_what_cannot_be_understood_is_refused_with_the_reason(
        string $text,
        Dimension $dimension,
        string $reason,
    ): void {
        $this->expectException(CannotReadQuantity::class);
        $this->expectExceptionMessage($reason);
        Quantity::parse($text, $dimension);
    }

    public function test_a_mixed_case_unit_is_told_apart_only_where_case_matters(): void
    {
        self::assertSame('5 mW', Quantity::parse('5 mW', Dimension::Power)->text());
        self::assertSame('3 kΩ', Quantity::parse('3 KOHM', Dimension::Resistance)->text());
    }

    public function test_any_quantity_reads_back_as_it_was_written(): void
    {
        foreach (Dimension::cases() as $dimension) {
            $units = $dimension === Dimension::Derived ? [] : Units::symbolsOf($dimension);
            if ($units === []) {
                continue;
            }
            $this->limitTo(25)
                ->forAll(Generators::elements($units), Generators::choose(1, 999_999), Generators::choose(0, 6))
                ->then(static function (string $unit, int $digits, int $places) use ($dimension): void {
                    $written = Quantity::of($digits / 10 ** $places, $unit);
                    if ($written->unit->symbol === 'AWG') {
                        $written = Quantity::of($digits % 40, 'AWG');
                    }
                    $read = Quantity::parse($written->text(), $dimension);

                    self::assertSame($written->text(), $read->text());
                    self::assertSame($written->in($dimension->unit()), $read->in($dimension->unit()));
                });
        }
    }

    public function test_converting_there_and_back_changes_nothing(): void
    {
        $this->limitTo(200)
            ->forAll(
                Generators::choose(1, 1_000_000),
                Generators::elements('in', 'ft', 'mm', 'thou', 'km'),
                Generators::elements('m', 'in', 'µm'),
            )
            ->then(static function (int $size, string $from, string $to): void {
                $there = Quantity::of($size / 100, $from);

                self::assertSame(0, $there->to($to)->to($from)->compare($there));
            });
    }

    public function test_arithmetic_keeps_its_dimensions(): void
    {
        $resistance = Quantity::of(24, 'V')->squared()->over(Quantity::of(288, 'W'));

        self::assertSame('2 Ω', $resistance->text());
        self::assertSame('12 A', Quantity::of(24, 'V')->over($resistance)->text());
        self::assertSame('5 K', Quantity::of(30, '°C')->minus(Quantity::of(25, '°C'))->text());
        $this->expectException(\LogicException::class);
        Quantity::of(1, 'V')->plus(Quantity::of(1, 'A'));
    }

    public function test_a_hair_over_a_limit_by_rounding_is_not_over_it(): void
    {
        self::assertFalse(Quantity::of(0.1 + 0.2, 'A')->exceeds(Quantity::of(0.3, 'A')));
        self::assertTrue(Quantity::of(0.3001, 'A')->exceeds(Quantity::of(0.3, 'A')));
    }

    public function test_whatever_is_typed_is_read_or_refused_in_words(): void
    {
        $pieces = [
            '12',
            '0.5',
            '1,5',
            '1/2',
            '-',
            '+',
            ' ',
            '.',
            ',',
            'e9',
            '%',
            'V',
            'mm²',
            'AWG',
            'oz-in',
            '°C',
            "\u{a0}",
            'µ',
            'Ω',
            '"',
            'kg cm',
            '∞',
            "'",
            '(',
            '–',
        ];
        $this->limitTo(400)
            ->forAll(Generators::seq(Generators::elements($pieces)), Generators::elements(Dimension::cases()))
            ->then(static function (array $typed, Dimension $dimension) use ($pieces): void {
                $text = implode('', array_slice($typed, 0, 6));
                try {
                    $read = Quantity::parse($text, $dimension, 'mm');
                    self::assertTrue($read->unit->measures($dimension), "{$text} was read as {$read->text()}");
                    self::assertTrue(is_finite($read->in($read->unit->symbol)));
                } catch (CannotReadQuantity $e) {
                    self::assertNotSame('', $e->getMessage());
                }
                self::assertNotSame([], $pieces);
            });
    }

    public function test_ranges_are_read_in_every_spelling(): void
    {
        foreach (['10 V to 30 V', '10–30 V', '10..30V', '10-30V', '30 V to 10 V'] as $text) {
            self::assertSame('10 V to 30 V', Range::parse($text, Dimension::Voltage)->text(), $text);
        }
    }
}
