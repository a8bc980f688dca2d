<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Inspection\WorkingStep;
use Magpie\Core\Mechanical\Cutting;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Motion\TorqueCurve;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use Magpie\Core\Thermal\Rules\HeatUp;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Verdicts just inside and just outside their bands, and figures of the working by hand: what small wrong changes to the
 * rules went unnoticed without (tests/mutate.php).
 */
final class EdgesTest extends TestCase
{
    private static function worked(Finding $finding, string $label, string $unit): float
    {
        foreach ($finding->working as $step) {
            if (str_starts_with($step->label, $label) && $step->result !== null) {
                return $step->result->in($unit);
            }
        }
        self::fail("{$finding->key()} has no line \"{$label}\": {$finding->headline}");
    }

    /**
     * @param  array<string, string>  $psu
     * @param  array<string, string>  $load
     * @return array<string, mixed>
     */
    private static function fed(array $psu, array $load, string $family = 'fan'): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', $psu + ['output_voltage' => '24 V', 'rated_current' => '10 A']),
                Examples::part('load', $family, $load),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'load.power']]],
        );
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, Verdict}>
     */
    public static function bands(): iterable
    {
        $fan = static fn (string $most): array => self::fed(
            [],
            [
                'rated_voltage' => '24 V',
                'rated_current' => '0.1 A',
                'max_voltage' => $most,
            ],
        );
        yield 'a fan just below what arrives burns' => [$fan('23.9 V'), 'E06/load.power', Verdict::Danger];
        yield 'a fan just above it' => [$fan('24.1 V'), 'E06/load.power', Verdict::Holds];

        $bed = static fn (string $watts, string $volts): array => HeatUp::bed([
            'rated_power' => $watts,
            'rated_voltage' => $volts,
            'heated_width' => '100 mm',
            'heated_depth' => '100 mm',
        ]);
        // 100 cm²: 0.6 W/cm² at low voltage, 1.0 on the mains, 1.5 for either (handbook T02).
        yield '0.59 W/cm² at 24 V' => [$bed('59 W', '24 V'), 'T02/bed', Verdict::Holds];
        yield '0.61 W/cm² at 24 V' => [$bed('61 W', '24 V'), 'T02/bed', Verdict::Tight];
        yield '0.99 W/cm² at 230 V' => [$bed('99 W', '230 V'), 'T02/bed', Verdict::Holds];
        yield '1.01 W/cm² at 230 V' => [$bed('101 W', '230 V'), 'T02/bed', Verdict::Tight];
        yield '1.49 W/cm²' => [$bed('149 W', '230 V'), 'T02/bed', Verdict::Tight];
        yield '1.51 W/cm²' => [$bed('151 W', '230 V'), 'T02/bed', Verdict::Danger];

        $supply = static fn (string $air, string $amps, string $cooling = 'fanless'): array => array_replace(
            self::fed(['cooling' => $cooling], ['rated_voltage' => '24 V', 'rated_current' => $amps]),
            ['site' => ['ambient' => $air, 'mains_voltage' => '230 V', 'tariff' => '0.28']],
        );
        // Fanless: 2 % a kelvin above 50 °C, so 8 A of 10 A at 60 °C, and four fifths of that holds.
        yield 'a fanless supply at 60 °C holds four fifths of 8 A' => [
            $supply('60 °C', '6.3 A'),
            'E05/psu.out',
            Verdict::Holds,
        ];
        yield 'just above them' => [$supply('60 °C', '6.5 A'), 'E05/psu.out', Verdict::Tight];
        yield 'and fails above 8 A' => [$supply('60 °C', '8.1 A'), 'E05/psu.out', Verdict::Fails];
        yield 'at 50 °C nothing is taken off' => [$supply('50 °C', '7.95 A'), 'E05/psu.out', Verdict::Holds];
        yield 'a kelvin above it is' => [$supply('51 °C', '7.95 A'), 'E05/psu.out', Verdict::Tight];
        yield 'with a fan nothing is' => [$supply('60 °C', '7.95 A', 'fan'), 'E05/psu.out', Verdict::Holds];

        $plug = static fn (string $amps, ?string $off): array => (static function () use ($amps, $off): array {
            $file = self::fed([], ['rated_voltage' => '24 V', 'rated_current' => $amps]);
            foreach (['psu', 'load'] as $i => $_) {
                $file['parts'][$i]['ports'] = [
                    [
                        'name' => ['out', 'power'][$i],
                        'kind' => ['source', 'inlet'][$i],
                        'specs' => [
                            'contact_rating' => ['value' => '5 A', 'evidence' => 'datasheet'] +
                                ($off === null ? [] : ['tolerance' => $off]),
                        ],
                    ],
                ];
            }

            return $file;
        })();
        yield 'a contact at just under four fifths' => [$plug('3.95 A', null), 'E02/W1', Verdict::Holds];
        yield 'the low end of its rating is what counts' => [$plug('3.95 A', '20 %'), 'E02/W1', Verdict::Tight];

        $servo = static fn (?string $most, string $mass): array => (static function () use ($most, $mass): array {
            $file = SampleAxis::file(['mass' => $mass]);
            [$part, $need] = Examples::part(
                'motor',
                'servo_motor',
                array_filter([
                    'rated_torque' => '1 N m',
                    'peak_torque' => '3 N m',
                    'rated_speed' => '3000 rpm',
                    'rotor_inertia' => '72 g cm²',
                    'inertia_limit' => $most,
                ]),
            );
            $file['leads'] = [];
            foreach ($file['parts'] as $i => $one) {
                if ($one['ref'] === 'motor') {
                    [$file['parts'][$i], $file['needs'][$i]] = [$part, $need];
                }
            }

            return $file;
        })();
        // 40 mm a turn: m × (s/2π)² = 4.05e-5 m² × m; at 4 kg 1.62e-4 kg m², 22.5 times a rotor of 72 g cm².
        yield 'too much for any servo' => [$servo(null, '4 kg'), 'M04/x', Verdict::Fails];
        yield 'only unusual for one whose maker allows it' => [$servo('30', '4 kg'), 'M04/x', Verdict::Tight];

        $screw = static fn (string $speed): array => Examples::file(
            [
                Examples::part('screw', 'drive_screw', [
                    'diameter' => '16 mm',
                    'root_diameter' => '13.5 mm',
                    'lead' => '5 mm',
                ]),
            ],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'drive' => [
                            'by' => 'screw',
                            'top_speed' => $speed,
                            'acceleration' => '1 m/s²',
                            'mass' => '10 kg',
                            'force' => '0 N',
                            'friction' => '20 N',
                            'incline' => '0 °',
                            'support' => 'fixed-supported',
                            'unsupported' => '1000 mm',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );
        // 15.1 × 10⁷ × 13.5 / 1000² = 2038.5 rpm, with its safety: 169.9 mm/s on a lead of 5 mm; a quarter more is 212.
        yield 'a screw at what is allowed' => [$screw('169 mm/s'), 'M05/x', Verdict::Holds];
        yield 'a little above' => [$screw('171 mm/s'), 'M05/x', Verdict::Tight];
        yield 'up to a quarter more' => [$screw('211 mm/s'), 'M05/x', Verdict::Tight];
        yield 'and beyond' => [$screw('214 mm/s'), 'M05/x', Verdict::Fails];
    }

    /**
     * @param  array<string, mixed>  $file
     */
    #[DataProvider('bands')]
    public function test_a_band_begins_and_ends_where_it_should(array $file, string $key, Verdict $verdict): void
    {
        $finding = (new SampleBuild($file))->finding($key);

        // What it would read on stronger evidence: here it is the band that counts.
        self::assertSame($verdict, $finding->otherwise ?? $finding->verdict, $finding->headline);
    }

    public function test_motors_side_by_side_on_one_driver_share_its_current(): void
    {
        $alone = SampleAxis::file();
        $file = $alone;
        [$part, $need] = Examples::part('second', 'stepper_motor', [
            'step_angle' => '1.8 °',
            'rated_current' => '1.8 A',
            'holding_torque' => '0.45 N m',
            'inductance' => '4 mH',
            'rotor_inertia' => '72 g cm²',
        ]);
        [$file['parts'][], $file['needs'][]] = [$part, $need];
        $file['leads'][] = ['ref' => 'W3', 'from' => 'drv.motor', 'to' => 'second.phases'];
        $label = 'Share of its current';

        // 1.5 A of 1.8 A; and 0.75 A each.
        self::assertEqualsWithDelta(
            1.5 / 1.8,
            self::worked((new SampleBuild($alone))->finding('M03/x'), $label, ''),
            1e-6,
        );
        self::assertEqualsWithDelta(
            0.75 / 1.8,
            self::worked((new SampleBuild($file))->finding('M03/x'), $label, ''),
            1e-6,
        );
        // n_c = V / (2 L I N): 24 / (2 × 4 mH × 1.5 A × 200) = 10 rev/s; at half the current 20.
        self::assertEqualsWithDelta(
            600,
            self::worked((new SampleBuild($alone))->finding('M03/x'), 'Corner speed', 'rpm'),
            0.1,
        );
        self::assertEqualsWithDelta(
            1200,
            self::worked((new SampleBuild($file))->finding('M03/x'), 'Corner speed', 'rpm'),
            0.1,
        );
    }

    public function test_a_driver_takes_two_thirds_of_what_it_is_set_to(): void
    {
        $finding = (new SampleBuild(SampleAxis::file()))->finding('E05/psu.out');

        self::assertEqualsWithDelta(1.0, self::worked($finding, 'Load in', 'A'), 1e-6, 'Two thirds of 1.5 A.');
        self::assertStringContainsString('left.', $finding->headline);
    }

    public function test_what_a_cutter_does_at_its_speed(): void
    {
        $file = Examples::file([
            Examples::part('cutter', 'cutter', [
                'shank' => '6 mm',
                'top_speed' => '18000 rpm',
                'flutes' => '2',
                'diameter' => '6 mm',
            ]),
            Examples::part('spindle', 'spindle', [
                'collet_largest' => '7 mm',
                'lowest_speed' => '3000 rpm',
                'top_speed' => '24000 rpm',
                'rated_power' => '400 W',
                'cooling' => 'own fan',
            ]),
        ]);
        $finding = (new SampleBuild($file))->finding('M08/cutter');

        // π × 6 mm × 300 rev/s; 0.05 mm × 2 × 18000 rpm.
        self::assertEqualsWithDelta(5.6549, self::worked($finding, 'Speed of its rim', 'm/s'), 1e-3);
        self::assertEqualsWithDelta(1800, self::worked($finding, 'Feed for a chip', 'mm/min'), 0.1);
        self::assertStringContainsString(
            'draw the dust off',
            implode("\n", array_map(static fn ($s): string => $s->text(), $finding->working)),
        );
        $figures = Cutting::figures(
            Quantity::of(6, 'mm'),
            2,
            Quantity::of(18000, 'rpm'),
            Quantity::of(0.05, 'mm'),
            Quantity::ratio(0.3),
            Quantity::of(2, 'mm'),
            'softwood',
        );
        // 1/(2√(0.3 × 0.7)) = 1.0911; 1800 × 1.0911 mm/min; feed × 1.8 mm × 2 mm / 60.
        self::assertEqualsWithDelta(1.091, $figures['thinning'], 5e-4);
        self::assertEqualsWithDelta(1964, $figures['feed'], 0.5);
        self::assertEqualsWithDelta(117.8, $figures['removal'], 0.1);
        self::assertEqualsWithDelta(5.65, $figures['rim'], 0.01);
        self::assertSame(1.0, Cutting::thinning(Quantity::ratio(0.5)));
        self::assertEqualsWithDelta(1.0002, Cutting::thinning(Quantity::ratio(0.49)), 1e-4);
    }

    public function test_an_estimated_curve_is_flat_to_its_corner_and_falls_as_one_over_the_speed(): void
    {
        $curve = TorqueCurve::estimate(Quantity::of(1, 'N m'), Quantity::of(10, 'rev/s'));
        $at = static fn (TorqueCurve $c, float $speed): float => $c->at(Quantity::of($speed, 'rev/s'))->in('N m');

        self::assertEqualsWithDelta(1.0, $at($curve, 5), 1e-9);
        self::assertEqualsWithDelta(1.0, $at($curve, 10), 1e-9);
        foreach ([12.5, 20, 25, 50, 100] as $speed) {
            self::assertEqualsWithDelta(10 / $speed, $at($curve, $speed), 1e-9, "{$speed} rev/s");
        }
        self::assertEqualsWithDelta(1.0, $at($curve->times(2), 20), 1e-9);
        self::assertEqualsWithDelta(0.25, $at($curve->times(0.5), 20), 1e-9);
    }

    public function test_half_of_a_pulley_is_in_mesh_and_the_belt_of_its_pitch_is_the_one(): void
    {
        $belts = static fn (string ...$pitches): array => Examples::file(
            [
                Examples::part('pulley', 'pulley', [
                    'teeth' => '20',
                    'pitch' => '2 mm',
                    'bore' => '5 mm',
                    'grub_screws' => '2',
                ]),
                ...array_map(
                    static fn (string $pitch, int $i): array => Examples::part("belt{$i}", 'belt', [
                        'pitch' => $pitch,
                        'width' => '6 mm',
                    ]),
                    $pitches,
                    array_keys($pitches),
                ),
                Examples::part('motor', 'stepper_motor', ['shaft_form' => 'flat', 'shaft_diameter' => '5 mm']),
            ],
            [
                'axes' => [
                    ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['motors' => ['motor'], 'by' => 'pulley']],
                ],
            ],
        );

        self::assertEqualsWithDelta(
            10,
            self::worked((new SampleBuild($belts('2 mm')))->finding('M06/x'), 'Teeth in mesh', ''),
            1e-9,
        );
        self::assertNotSame(Verdict::Fails, (new SampleBuild($belts('3 mm', '2 mm')))->finding('M06/x')->verdict);
        self::assertSame(Verdict::Fails, (new SampleBuild($belts('3 mm')))->finding('M06/x')->verdict);
    }

    public function test_a_number_put_into_a_power_stands_in_brackets(): void
    {
        $step = new WorkingStep('Deflection', 'f = F × L³ / (d⁴ × k²)', [
            'F' => Quantity::of(180, 'N'),
            'L' => Quantity::of(500, 'mm'),
            'd' => Quantity::of(16, 'mm'),
        ]);

        self::assertSame('180 N × (500 mm)³ / ((16 mm)⁴ × k²)', preg_replace('/\s/u', ' ', $step->substituted()));
    }
}
