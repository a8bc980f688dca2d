<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Commissioning;

use Magpie\Core\Commissioning\Expectations;
use Magpie\Core\Commissioning\Expected;
use Magpie\Core\Commissioning\Pointers;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Quantity\Quantity;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What a reading outside its band points to, and the bands themselves, by hand. */
final class PointersTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $more
     */
    private static function build(array $more = []): Build
    {
        return BuildFile::build(Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', ['contact_rating' => '10 A']),
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'voltage_tolerance' => '2 %', 'rated_current' => '10 A']),
                Examples::part('psu5', 'power_supply', ['output_voltage' => '5 V', 'rated_current' => '3 A']),
                Examples::part('bed', 'heater', ['rated_power' => '75 W', 'rated_voltage' => '24 V']),
                Examples::part('th', 'thermistor', ['resistance_25' => '100 kΩ', 'beta' => '3950 K']),
                Examples::part('left', 'stepper_motor', ['phase_resistance' => '2 Ω']),
                Examples::part('right', 'stepper_motor', ['phase_resistance' => '4.2 Ω']),
                Examples::part('rail', 'linear_rail', ['length' => '400 mm', 'block_length' => '60 mm']),
            ],
            $more + [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                'site' => ['ambient' => '30 °C', 'mains_voltage' => '230 V'],
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'rail']],
                'leads' => [['ref' => 'E', 'from' => 'inlet.earth', 'to' => 'psu.earth']],
            ],
        ));
    }

    /**
     * @return array<string, Expected>
     */
    private static function all(): array
    {
        static $all = null;

        return $all ??= Expectations::of(new Survey(self::build()))->all();
    }

    private static function reading(Measured $what, string $where, string $value, ?string $accuracy = null): Reading
    {
        $row = ['ref' => 'R1', 'what' => $what->value, 'value' => $value];
        $row += $what === Measured::Travel ? ['axis' => $where] : ['need' => $where];
        $row += $accuracy === null ? [] : ['accuracy' => $accuracy];

        return self::build(['readings' => [$row]])->readings['R1'];
    }

    /**
     * @return iterable<string, array{Measured, string, string, string}> what is read, where, and what is said first
     */
    public static function pointers(): iterable
    {
        yield 'a coil as it should be' => [Measured::PhaseResistance, 'left', '2.05 Ω', ''];
        yield 'two wires of different coils' => [Measured::PhaseResistance, 'left', '2 MΩ', 'The two wires are of different coils'];
        yield 'a coil shorted' => [Measured::PhaseResistance, 'left', '0.1 Ω', 'A short: the winding or its lead touches itself'];
        yield 'two coils in series, which are those of the other motor too' => [
            Measured::PhaseResistance,
            'left',
            '4.2 Ω',
            'Twice as much: two coils in series',
        ];
        yield 'half a coil' => [Measured::PhaseResistance, 'left', '1.05 Ω', 'Half as much: from the tap'];
        yield 'the other motor' => [Measured::PhaseResistance, 'right', '2.0 Ω', 'Half as much'];
        yield 'the leads of the meter' => [Measured::PhaseResistance, 'left', '2.9 Ω', 'The resistance of the test leads'];
        // 1/T = 1/298.15 + ln 3.3 / 3950 is 273.5 K, and with ln 0.1 it is 360.9 K.
        yield 'a sensor in a cold room' => [Measured::SensorResistance, 'th', '330 kΩ', 'It reads as 0 °C'];
        yield 'a sensor open' => [Measured::SensorResistance, 'th', '5 MΩ', 'No way through: the sensor or its crimp is open'];
        yield 'a sensor of ten times less' => [Measured::SensorResistance, 'th', '10 kΩ', 'It reads as 88 °C'];
        yield 'a sensor of another kind' => [Measured::SensorResistance, 'th', '109 Ω', 'A sensor of another table'];
        yield 'plus for minus' => [Measured::OutputVoltage, 'psu', '-24 V', 'Plus and minus are swapped'];
        yield 'nothing comes' => [Measured::OutputVoltage, 'psu', '2.3 V', 'Nothing comes: breaker'];
        yield 'too little' => [Measured::OutputVoltage, 'psu', '21 V', 'Something behind it is joined'];
        yield 'too much' => [Measured::OutputVoltage, 'psu', '25.2 V', 'Its trimmer is turned up'];
        yield 'as much as another' => [Measured::OutputVoltage, 'psu5', '24 V', 'It fits psu: the two leads may be swapped'];
        yield 'no earth at all' => [Measured::Bond, 'psu', '100 Ω', 'Not joined at all'];
        yield 'a bad earth' => [Measured::Bond, 'psu', '1 Ω', 'Paint or anodising under the lug'];
        yield 'an earth nearly good' => [Measured::Bond, 'psu', '0.3 Ω', 'The resistance of the test leads'];
        yield 'a good earth' => [Measured::Bond, 'psu', '0.1 Ω', ''];
        yield 'damp' => [Measured::Insulation, 'inlet', '0.5 MΩ', 'Damp, or metal dust'];
        yield 'dry' => [Measured::Insulation, 'inlet', '1 MΩ', ''];
        yield 'a travel too short' => [Measured::Travel, 'x', '320 mm', 'A stop, a bracket or a screw head'];
        yield 'a travel too long' => [Measured::Travel, 'x', '360 mm', 'An end stop or a bracket is not fitted yet'];
        yield 'a bed of another voltage' => [Measured::ColdResistance, 'bed', '192 Ω', 'As one of the same power for 120 V: at 24 V it gives 3 W'];
        yield 'a bad contact' => [Measured::ColdResistance, 'bed', '9.9 Ω', 'A bad contact in the way'];
        yield 'something beside it' => [Measured::ColdResistance, 'bed', '6.5 Ω', 'Something else is joined to the same lead'];
    }

    #[DataProvider('pointers')]
    public function test_what_is_off_points_to_its_usual_reason_first(Measured $what, string $where, string $value, string $says): void
    {
        $expected = self::all()["{$what->value}/{$where}"];
        $said = (new Pointers(self::build(), self::all()))->of($expected, self::reading($what, $where, $value));
        $says === '' ? self::assertSame([], $said) : self::assertStringStartsWith($says, $said[0] ?? 'nothing');
    }

    /**
     * @return iterable<string, array{string, float|null, float|null, float|null, string}> nominal, low, high, in its unit
     */
    public static function bands(): iterable
    {
        yield 'a supply that says how far it is off' => ['output_voltage/psu', 24.0, 24 * 0.98, 24 * 1.02, '23.5 V to 24.5 V'];
        yield 'an earth' => ['bond/psu', 0.0, null, 0.1, 'at most 0.1 Ω'];
        yield 'insulation' => ['insulation/inlet', null, 1.0, null, 'at least 1 MΩ'];
        yield 'a heater, a tenth either way' => ['cold_resistance/bed', 7.68, 6.912, 8.448, '6.91 Ω to 8.45 Ω'];
        yield 'a travel, 2 % less and 5 % more' => ['travel/x', 340.0, 333.2, 357.0, '333 mm to 357 mm'];
    }

    #[DataProvider('bands')]
    public function test_bands(string $key, ?float $nominal, ?float $low, ?float $high, string $band): void
    {
        $expected = self::all()[$key];
        $in = static fn (?Quantity $q): ?float => $q?->in($q->unit->symbol);
        self::assertEqualsWithDelta([$nominal, $low, $high], [$in($expected->nominal), $in($expected->low), $in($expected->high)], 1e-9);
        self::assertSame($band, strtr($expected->band(), ["\u{a0}" => ' ']));
    }

    /** What no sheet says proves nothing; an earth that is not joined is asked of nobody. */
    public function test_where_nothing_is_known_there_is_no_band(): void
    {
        self::assertSame(['output tolerance of psu5'], self::all()['output_voltage/psu5']->missing);
        self::assertSame(Verdict::Unproven, self::all()['output_voltage/psu5']->verdict(self::reading(Measured::OutputVoltage, 'psu5', '5 V')));
        self::assertSame(Verdict::Fails, self::all()['output_voltage/psu5']->verdict(self::reading(Measured::OutputVoltage, 'psu5', '5.3 V')));
        self::assertArrayNotHasKey('bond/psu5', self::all());
        $of = static fn (array $parts): array => Expectations::of(new Survey(BuildFile::build(Examples::file($parts, [
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
        ]))))->all();
        $bare = $of([
            Examples::part('bed', 'heater', ['rated_power' => '75 W']),
            Examples::part('th', 'thermistor', ['beta' => '3950 K']),
            Examples::part('m', 'stepper_motor', []),
            Examples::part('psu', 'power_supply', []),
        ]);
        foreach (['cold_resistance/bed', 'sensor_resistance/th', 'phase_resistance/m', 'output_voltage/psu'] as $key) {
            self::assertFalse($bare[$key]->isKnown(), $key);
            self::assertSame('not known', $bare[$key]->band());
            self::assertCount(1, $bare[$key]->missing);
        }
    }

    /** Nearer to an edge than the meter may be off is tight, at an edge of nothing it is not. */
    public function test_a_band_is_held_with_what_the_meter_may_be_off(): void
    {
        $verdict = static fn (string $key, Measured $what, string $where, string $value, string $off): Verdict => self::all()[$key]->verdict(
            self::reading($what, $where, $value, $off),
        );
        $bed = static fn (string $ohms): Verdict => $verdict('cold_resistance/bed', Measured::ColdResistance, 'bed', $ohms, '0.1 Ω');
        self::assertSame(
            [Verdict::Fails, Verdict::Tight, Verdict::Holds, Verdict::Holds, Verdict::Tight, Verdict::Fails],
            array_map($bed, ['6.9 Ω', '7.0 Ω', '7.02 Ω', '8.34 Ω', '8.36 Ω', '8.45 Ω']),
        );
        self::assertSame(Verdict::Holds, $verdict('bond/psu', Measured::Bond, 'psu', '0.005 Ω', '0.01 Ω'));
        self::assertSame(Verdict::Tight, $verdict('bond/psu', Measured::Bond, 'psu', '0.095 Ω', '0.01 Ω'));
    }
}
