<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Commissioning;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Commissioning\Expectations;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Running\AsMeasured;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What instruments should show, what a reading that is off points to, and that a reading counts before the sheet. */
final class ReadingsTest extends TestCase
{
    /**
     * @param  list<array<string, mixed>>  $readings
     * @param  array<string, string|bool>  $heater
     */
    private static function build(array $readings, array $heater = [], int $quantity = 1): Build
    {
        $mat = Examples::part('mat', 'heater', $heater + ['rated_power' => '75 W', 'rated_voltage' => '24 V']);
        $mat[1]['quantity'] = $quantity;

        return BuildFile::build(
            Examples::file(
                [
                    $mat,
                    Examples::part('tip', 'heater', ['rated_power' => '40 W', 'rated_voltage' => '24 V']),
                    Examples::part('th', 'thermistor', ['resistance_25' => '100 kΩ', 'beta' => '3950 K']),
                    Examples::part('motor', 'stepper_motor', ['phase_resistance' => '2 Ω']),
                ],
                [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                    'site' => ['ambient' => '30 °C', 'mains_voltage' => '230 V'],
                    'readings' => $readings,
                ],
            ),
        );
    }

    /**
     * Handbook C1: 75 W at 24 V is 7.68 Ω; 100 kΩ, B 3950, at 20 °C is 125.4 kΩ. Copper 0.393 % a kelvin: 2 Ω − 10 % at 15 °C is
     * 1.8 × 0.98035 = 1.765 Ω, + 10 % at 30 °C is 2.2 × 1.0393 = 2.286 Ω.
     */
    public function test_bands_are_those_of_the_handbook(): void
    {
        $all = Expectations::of(new Survey(self::build([])))->all();
        self::assertEqualsWithDelta(7.68, $all['cold_resistance/mat']->nominal?->in('Ω'), 0.005);
        self::assertEqualsWithDelta(7.68 * 0.9, $all['cold_resistance/mat']->low?->in('Ω'), 0.005);
        self::assertEqualsWithDelta(125.4, $all['sensor_resistance/th']->nominal?->in('kΩ'), 0.1);
        self::assertEqualsWithDelta(1.765, $all['phase_resistance/motor']->low?->in('Ω'), 0.001);
        self::assertEqualsWithDelta(2.286, $all['phase_resistance/motor']->high?->in('Ω'), 0.001);
        self::assertSame('Resistance of mat', $all['cold_resistance/mat']->label);
        $four = Expectations::of(new Survey(self::build([], [], 4)))->all()['cold_resistance/mat'];
        self::assertSame(
            ['Resistance of mat, each of 4', true],
            [$four->label, str_starts_with($four->how, 'Every one')],
        );
        self::assertSame([], array_filter($all, static fn ($e): bool => $e->what->value === 'bond'));
    }

    /** m·c·ΔT/P_l · ln(1/(1 − P_l/P)): 1 kg of aluminium from 30 to 100 °C by 200 W, 2 × 0.04 m² losing 12 W/m²K. */
    public function test_a_bed_says_how_long_it_takes(): void
    {
        $bed = [
            'place' => 'bed',
            'rated_power' => '200 W',
            'plate_mass' => '1 kg',
            'plate_material' => 'aluminium',
            'target' => '100 °C',
            'heated_width' => '200 mm',
            'heated_depth' => '200 mm',
        ];
        $expected = Expectations::of(new Survey(self::build([], $bed)))->all()['heat_up/mat'] ?? null;
        self::assertNotNull($expected?->nominal);
        $lost = 2 * 0.04 * 12 * 70;
        self::assertEqualsWithDelta(((900 * 70) / $lost) * -log(1 - $lost / 200), $expected->nominal->in('s'), 12);
        self::assertTrue($expected->high?->exceeds($expected->nominal));
        self::assertArrayNotHasKey('heat_up/tip', Expectations::of(new Survey(self::build([])))->all());
    }

    /**
     * @return iterable<string, array{string, string, string}>
     */
    public static function faults(): iterable
    {
        yield 'one of a pair' => ['mat', '15.4 Ω', 'one element of two'];
        yield 'two side by side' => ['mat', '3.85 Ω', 'twice the current'];
        yield 'for half the voltage' => ['mat', '1.92 Ω', 'for 12 V: at 24 V it gives 300 W'];
        yield 'open' => ['mat', '50 MΩ', 'No way through'];
        yield 'shorted' => ['mat', '0.05 Ω', 'A short'];
        yield 'the other heater' => ['tip', '7.7 Ω', 'It fits mat: the two leads may be swapped'];
    }

    #[DataProvider('faults')]
    public function test_a_reading_that_is_off_says_what_it_points_to(string $need, string $value, string $says): void
    {
        $build = self::build([['ref' => 'R1', 'what' => 'cold_resistance', 'need' => $need, 'value' => $value]]);
        $finding = Rules::inspector()->find($build, "C01/cold_resistance/{$need}");
        self::assertSame('fails', $finding?->verdict->value);
        $told = implode(' ', array_map(static fn ($step): string => $step->label, $finding->working));
        self::assertStringContainsString($says, $told.$finding->headline);
    }

    public function test_nearer_to_the_edge_than_the_instrument_can_tell_is_tight(): void
    {
        $verdict = static fn (string $accuracy): ?string => Rules::inspector()->find(
            self::build([
                [
                    'ref' => 'R1',
                    'what' => 'cold_resistance',
                    'need' => 'mat',
                    'value' => '8.4 Ω',
                    'accuracy' => $accuracy,
                ],
            ]),
            'C01/cold_resistance/mat',
        )?->verdict->value;
        self::assertSame('holds', $verdict('0.01 Ω'));
        self::assertSame('tight', $verdict('0.1 Ω'));
    }

    public function test_checks_read_the_reading_and_keep_the_sheet_beside_it(): void
    {
        $reading = [
            'ref' => 'R1',
            'what' => 'cold_resistance',
            'need' => 'mat',
            'value' => '6.4 Ω',
            'instrument' => 'meter',
        ];
        $part = AsMeasured::of(self::build([$reading]))->parts['mat'];
        $cold = $part->spec('cold_resistance');
        self::assertEqualsWithDelta(6.4, $cold?->nominal()?->in('Ω'), 1e-9);
        self::assertSame([Evidence::Measured, 'reading R1, meter'], [$cold?->evidence, $cold?->source]);
        self::assertNull(AsMeasured::sheet($part, 'cold_resistance'));
        // The reading is held against the sheet, not against itself.
        self::assertSame(
            'fails',
            Rules::inspector()->find(self::build([['value' => '5 Ω'] + $reading]), 'C01/cold_resistance/mat')?->verdict
                ->value,
        );
        // Of one of two nothing follows for the other.
        self::assertNull(AsMeasured::of(self::build([$reading], [], 2))->parts['mat']->spec('cold_resistance'));
        $twice = AsMeasured::of(AsMeasured::of(self::build([$reading])))->parts['mat'];
        self::assertEquals($part->specs, $twice->specs);
    }

    /** Two rods of the same part, one with half of its coil: only where it was read is the part another. */
    public function test_a_part_in_two_places_is_as_it_was_measured_in_each(): void
    {
        $two = static function (string ...$ohms): Build {
            $file = Examples::file([
                Examples::part('mat', 'heater', ['rated_power' => '75 W', 'rated_voltage' => '24 V']),
            ]);
            $file['needs'][] = ['ref' => 'left'] + $file['needs'][0];
            foreach ($ohms as $need => $value) {
                $file['readings'][] = [
                    'ref' => "R-{$need}",
                    'what' => 'cold_resistance',
                    'need' => $need,
                    'value' => $value,
                ];
            }

            return BuildFile::build(
                ['magpie' => BuildFile::VERSION, 'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP']] +
                    $file,
            );
        };
        $ohms = static fn (Build $build, string $need): ?float => AsMeasured::of($build)
            ->fitted($need)
            ?->part->spec('cold_resistance')
            ?->nominal()
            ?->in('Ω');
        $build = $two(left: '15.4 Ω');
        self::assertSame([null, 15.4], [$ohms($build, 'mat'), $ohms($build, 'left')]);
        self::assertSame(
            [7.6, 15.4],
            [$ohms($two(mat: '7.6 Ω', left: '15.4 Ω'), 'mat'), $ohms($two(mat: '7.6 Ω', left: '15.4 Ω'), 'left')],
        );
        self::assertSame('fails', Rules::inspector()->find($build, 'C01/cold_resistance/left')?->verdict->value);
        // Another part in its place was not measured.
        self::assertNull(AsMeasured::of($build)->choosing('left', null)->fitted('left'));
        self::assertEquals(AsMeasured::of($build), AsMeasured::of(AsMeasured::of($build)));
        $standing = Standing::of(Rules::inspector(), $two());
        foreach ([$two(left: '15.4 Ω'), $two(left: '3.8 Ω', mat: '7.6 Ω'), $two()] as $build) {
            $standing = $standing->after($build);
            $told = static fn (array $findings): array => array_map(
                static fn ($f): string => "{$f->key()} {$f->verdict->value} {$f->headline}",
                $findings,
            );
            self::assertEqualsCanonicalizing(
                $told(Rules::inspector()->inspect($build)->findings),
                $told($standing->inspection()->findings),
            );
        }
    }

    /** Nut and end play are listed with 15 µm; the indicator says 60, and that counts. */
    public function test_backlash_that_was_read_counts_before_the_sheet(): void
    {
        $lost = static fn (array $readings): ?string => Rules::inspector()->find(
            BuildFile::build(
                Examples::file(
                    [Examples::part('screw', 'drive_screw', ['kind' => 'ball screw', 'backlash' => '10 µm'])],
                    [
                        'magpie' => BuildFile::VERSION,
                        'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                        'brief' => ['accuracy' => '0.05 mm'],
                        'axes' => [
                            [
                                'ref' => 'x',
                                'name' => 'X',
                                'along' => 'x',
                                'drive' => ['by' => 'screw', 'end_play' => '5 µm'],
                            ],
                        ],
                        'readings' => $readings,
                    ],
                ),
            ),
            'M16/x',
        )?->verdict->value;
        $reading = ['ref' => 'R1', 'what' => 'backlash', 'axis' => 'x', 'value' => '60 µm'];
        self::assertSame(
            ['holds', 'fails', 'unproven'],
            [$lost([]), $lost([$reading]), $lost([['struck' => 'no'] + $reading])],
        );
    }

    public function test_the_last_reading_counts_one_of_another_part_does_not_and_a_struck_one_leaves_a_doubt(): void
    {
        $reading = ['ref' => 'R1', 'what' => 'cold_resistance', 'need' => 'mat', 'value' => '6.4 Ω', 'at' => 1000];
        $ohms = static fn (array ...$readings): ?float => AsMeasured::of(self::build($readings))
            ->parts['mat']->spec('cold_resistance')
            ?->nominal()
            ?->in('Ω');
        self::assertEqualsWithDelta(
            7.1,
            $ohms($reading, ['ref' => 'R2', 'value' => '7.1 Ω', 'at' => 2000] + $reading),
            1e-9,
        );
        self::assertEqualsWithDelta(
            6.4,
            $ohms($reading, ['ref' => 'R2', 'value' => '7.1 Ω', 'at' => 500] + $reading),
            1e-9,
        );
        self::assertNull($ohms(['part' => 'another'] + $reading));
        self::assertNull($ohms(['struck' => 'wrong lead'] + $reading));
        $struck = AsMeasured::of(self::build([['struck' => 'wrong lead'] + $reading]))->parts['mat']->spec(
            'rated_power',
        );
        self::assertSame(Evidence::Assumed, $struck?->evidence);
    }

    public function test_a_reading_judges_the_same_after_an_edit_as_afresh(): void
    {
        $reading = ['ref' => 'R1', 'what' => 'cold_resistance', 'need' => 'mat', 'value' => '6.4 Ω'];
        $standing = Standing::of(Rules::inspector(), self::build([]));
        foreach ([[$reading], [['value' => '7.6 Ω'] + $reading], [['struck' => 'no'] + $reading], []] as $readings) {
            $standing = $standing->after(self::build($readings));
            $fresh = Rules::inspector()->inspect(self::build($readings));
            $told = static fn (array $findings): array => array_map(
                static fn ($f): string => "{$f->key()} {$f->verdict->value} {$f->headline}",
                $findings,
            );
            self::assertEqualsCanonicalizing($told($fresh->findings), $told($standing->inspection()->findings));
        }
    }
}
