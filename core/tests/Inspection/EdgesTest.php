<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Electrical\Ampacity;
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
     * A supply of 24 V, a tenth either way, and what it feeds.
     *
     * @param  array<string, string>  $load
     * @param  array<string, mixed>  $volts
     */
    private static function tolerant(array $load, array $volts, string $key): Finding
    {
        $file = self::fed([], $load + ['rated_current' => '1 A', 'rated_voltage' => '24 V'], 'fan');
        $file['parts'][0]['specs']['output_voltage'] = $volts + ['value' => '24 V', 'evidence' => 'datasheet'];
        $file['leads'][0] += ['conductor' => ['size' => '1.5 mm²', 'evidence' => 'measured'], 'length' => '1 m'];

        return (new SampleBuild($file))->finding($key);
    }

    public function test_a_tolerance_of_its_own_that_a_supply_states_counts_at_both_ends(): void
    {
        $window = static fn (string $least, string $most): Verdict => (new SampleBuild(
            self::fed(
                ['voltage_tolerance' => '10 %'],
                ['rated_current' => '1 A', 'min_voltage' => $least, 'max_voltage' => $most],
            ),
        ))->finding('E06/load.power')->verdict;

        // 21.6 to 26.4 V.
        self::assertSame(Verdict::Holds, $window('21 V', '27 V'));
        self::assertSame(Verdict::Fails, $window('22 V', '27 V'));
        self::assertSame(Verdict::Danger, $window('21 V', '26 V'));
    }

    public function test_what_a_supply_may_hold_counts_at_both_ends(): void
    {
        $ten = ['tolerance' => '10 %'];
        $window = static fn (string $least, string $most, array $volts): Verdict => self::tolerant(
            ['min_voltage' => $least, 'max_voltage' => $most],
            $volts,
            'E06/load.power',
        )->verdict;
        self::assertSame(Verdict::Holds, $window('12 V', '26 V', []));
        self::assertSame(Verdict::Danger, $window('12 V', '26 V', $ten), '26.4 V at its high end.');
        self::assertSame(Verdict::Fails, $window('22 V', '30 V', $ten), '21.6 V at its low end.');
        self::assertSame(
            Verdict::Danger,
            $window('22 V', '26 V', $ten),
            'Too little at one end, too much at the other: it burns.',
        );

        // 1 A through 1.5 mm² and 1 m out and back loses some 30 mV.
        $arrives = static fn (string $least, array $volts): Finding => self::tolerant(
            ['min_voltage' => $least, 'max_voltage' => '30 V'],
            $volts,
            'E04/load.power',
        );
        self::assertSame(Verdict::Holds, $arrives('23 V', [])->verdict);
        self::assertSame(Verdict::Holds, $arrives('21.5 V', $ten)->verdict);
        self::assertSame(Verdict::Fails, $arrives('21.59 V', $ten)->verdict);
        self::assertStringContainsString(
            'At the low end of what its supply holds',
            $arrives('21.59 V', $ten)->headline,
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

        $beside = static fn (string $skin): array => Examples::file(
            [
                Examples::part('motor', 'stepper_motor', [
                    'skin_temperature' => $skin,
                    'body_length' => '42 mm',
                    'body_width' => '42 mm',
                    'body_height' => '40 mm',
                ]),
                Examples::part('board', 'controller_board', []),
            ],
            [
                'places' => [
                    [
                        'ref' => 'motor',
                        'need' => 'motor',
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'low'],
                    ],
                    [
                        'ref' => 'board',
                        'need' => 'board',
                        'size' => ['length' => '60 mm', 'width' => '60 mm', 'height' => '6 mm'],
                        'evidence' => 'measured',
                        'x' => ['at' => 'low'],
                        'y' => ['at' => 'low'],
                        'z' => ['at' => 'after', 'of' => 'motor', 'by' => '0 mm'],
                    ],
                ],
            ],
        );
        // Electronics bear 50 °C; less than 5 K below that is tight (handbook T04).
        yield 'electronics on a skin of 44 °C' => [$beside('44 °C'), 'T04-near/board', Verdict::Holds];
        yield 'on one of 46 °C' => [$beside('46 °C'), 'T04-near/board', Verdict::Tight];
        yield 'on one of 51 °C' => [$beside('51 °C'), 'T04-near/board', Verdict::Fails];

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

    /**
     * @return iterable<string, array{array<string, string>, list<array<string, string>>, array<string, string>, Verdict, string}>
     *     pulley, belts, motor, verdict, what is said or missing
     */
    public static function toothProfiles(): iterable
    {
        $h = ['pitch' => '5 mm', 'width' => '9 mm', 'profile' => 'H'];
        $five = ['pitch' => '5 mm', 'profile' => 'H'];
        yield 'of one profile' => [$five, [$h], [], Verdict::Holds, 'belt and pulley of one pitch'];
        yield 'curved on straight' => [$five, [['profile' => 'T'] + $h], [], Verdict::Fails, 'profile T, the pulley of profile H'];
        yield 'nobody says of the belt' => [
            $five,
            [array_diff_key($h, ['profile' => 1])],
            [],
            Verdict::Unproven,
            'tooth profile of belt0',
        ];
        yield 'nobody says of the pulley' => [['pitch' => '5 mm'], [$h], [], Verdict::Unproven, 'tooth profile of pulley'];
        yield 'the other belt is for another axis' => [
            $five,
            [$h, ['width' => '25 mm'] + $h, array_diff_key($h, ['profile' => 1]), ['width' => '9 mm']],
            [],
            Verdict::Holds,
            '',
        ];
        yield 'one may be it' => [$five, [['width' => '25 mm'] + $h, ['width' => '9 mm']], [], Verdict::Unproven, 'pitch of belt1'];
        yield 'all too wide' => [$five, [['width' => '25 mm'] + $h], [], Verdict::Fails, 'A belt of 25 mm'];
        yield 'few teeth, and loose on its shaft' => [
            ['teeth' => '10', 'bore' => '6 mm'] + $five,
            [$h],
            [],
            Verdict::Fails,
            '5 teeth in mesh; six are usual. A bore of 6 mm on a shaft of 5 mm',
        ];
        yield 'few teeth, and a round shaft' => [
            ['teeth' => '10'] + $five,
            [$h],
            ['shaft_form' => 'round'],
            Verdict::Tight,
            'six are usual. A grub screw on a round shaft',
        ];
    }

    /**
     * @param  array<string, string>  $pulley
     * @param  list<array<string, string>>  $belts
     * @param  array<string, string>  $motor
     */
    #[DataProvider('toothProfiles')]
    public function test_a_belt_of_one_pitch_and_another_profile_does_not_run(
        array $pulley,
        array $belts,
        array $motor,
        Verdict $verdict,
        string $says,
    ): void {
        $of = static fn (string $family, array $sheet): array => Examples::part($family, $family, $sheet);
        $finding = (new SampleBuild(
            Examples::file(
                [
                    $of('pulley', $pulley + ['teeth' => '20', 'bore' => '5 mm', 'width' => '10 mm', 'grub_screws' => '2']),
                    ...array_map(
                        static fn (array $belt, int $i): array => Examples::part("belt{$i}", 'belt', $belt),
                        $belts,
                        array_keys($belts),
                    ),
                    Examples::part('motor', 'stepper_motor', $motor + ['shaft_form' => 'flat', 'shaft_diameter' => '5 mm']),
                ],
                ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['motors' => ['motor'], 'by' => 'pulley']]]],
            ),
        ))->finding('M06/x');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString(
            $says,
            str_replace("\u{a0}", ' ', $finding->headline.' '.implode(', ', $finding->missing)),
        );
    }

    public function test_a_drive_that_ends_too_low_says_the_speed_it_reaches_and_reverse_has_to_be_locked_out(): void
    {
        $on = static fn (array $drive, string $poles): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part(
                        'drive',
                        'spindle_drive',
                        $drive + [
                            'output_current' => '7 A',
                            'top_frequency' => '400 Hz',
                            'input_phases' => 'single',
                        ],
                    ),
                    Examples::part('spindle', 'spindle', [
                        'rated_current' => '5 A',
                        'rated_power' => '1.5 kW',
                        'poles' => $poles,
                        'top_speed' => '24000 rpm',
                        'lowest_speed' => '8000 rpm',
                    ]),
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'drive.motor', 'to' => 'spindle.power']]],
            ),
        ))->finding('E22/drive');

        // 120 × 150 / 4.
        self::assertMatchesRegularExpression(
            '/which is 4500\s*rpm/u',
            $on(['top_frequency' => '150 Hz'], '4')->headline,
        );
        self::assertSame(Verdict::Holds, $on(['reverse_lock' => true], '2')->verdict);
        self::assertSame(Verdict::Fails, $on(['reverse_lock' => false], '2')->verdict);
        self::assertSame(Verdict::Unproven, $on([], '2')->verdict);
    }

    public function test_two_beams_bend_half_as_far_as_one(): void
    {
        $bend = static function (int $beams): float {
            $file = Examples::file(
                [Examples::part('beam', 'extrusion', ['length' => '500 mm', 'second_moment' => '7300 mm⁴'])],
                [
                    'brief' => ['accuracy' => '0.1 mm'],
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'drive' => ['beam' => 'beam', 'force' => '100 N', 'evidence' => 'measured'],
                        ],
                    ],
                ],
            );
            $file['needs'][0]['quantity'] = $beams;

            return self::worked((new SampleBuild($file))->finding('M12/x'), 'It bends', 'mm');
        };

        // 100 N × (0.5 m)³ / (48 × 70 GPa × 7300 mm⁴).
        self::assertEqualsWithDelta(0.50962, $bend(1), 1e-4);
        self::assertEqualsWithDelta($bend(1) / 2, $bend(2), 1e-9);
    }

    public function test_the_least_diameter_of_a_roller_and_the_most_mass_of_what_is_carried_count(): void
    {
        $rollers = static fn (array $across): float => self::worked(
            (new SampleBuild([
                'parts' => [
                    [
                        'ref' => 'roller',
                        'family' => 'bearing',
                        'name' => 'roller',
                        'specs' => [
                            'outer_diameter' => $across + ['evidence' => 'datasheet'],
                            'static_load' => ['value' => '1400 N', 'evidence' => 'datasheet'],
                            'dynamic_load' => ['value' => '3300 N', 'evidence' => 'datasheet'],
                        ],
                    ],
                ],
                'needs' => [
                    [
                        'ref' => 'roller',
                        'role' => 'rollers',
                        'family' => 'bearing',
                        'quantity' => 4,
                        'candidates' => ['roller'],
                        'choice' => 'roller',
                    ],
                ],
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'guides' => 'roller',
                        'drive' => [
                            'mass' => '12 kg',
                            'force' => '200 N',
                            'acceleration' => '2 m/s²',
                            'incline' => '0 °',
                            'lever' => '80 mm',
                            'spread' => '120 mm',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ]))->finding('M07/x'),
            'Travel until one bearing',
            'km',
        );
        self::assertEqualsWithDelta(
            0.9 * $rollers(['value' => '20 mm']),
            $rollers(['value' => '20 mm', 'tolerance' => '10 %']),
            1e-6,
        );

        $file = SampleAxis::file(['carries' => ['head'], 'mass' => null]);
        [$part, $need] = Examples::part('head', 'spindle', ['mass' => '2 kg']);
        $part['specs']['mass'] += ['tolerance' => '5 %'];
        $file['parts'][] = $part;
        $file['needs'][] = $need;
        self::assertEqualsWithDelta(
            2.1,
            self::worked((new SampleBuild($file))->finding('M03/x'), 'Moving mass', 'kg'),
            1e-9,
        );
    }

    public function test_a_curve_of_a_maker_ends_where_it_ends(): void
    {
        $flat = TorqueCurve::flat(Quantity::of(1.3, 'N m'), Quantity::of(50, 'rev/s'));

        self::assertSame(1.3, $flat->at(Quantity::of(49.9, 'rev/s'))->in('N m'));
        self::assertSame(0.0, $flat->at(Quantity::of(50.1, 'rev/s'))->in('N m'), 'And not as one over the speed.');
        self::assertFalse($flat->estimated);
    }

    public function test_a_second_conductor_beside_the_first_carries_as_much_again(): void
    {
        $carries = static function (int $parallel): float {
            $build = (new SampleBuild([
                ...self::fed([], ['rated_voltage' => '24 V']),
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'load.power',
                        'conductor' => ['size' => '0.75 mm²', 'parallel' => $parallel],
                    ],
                ],
            ]))->build;

            return Ampacity::figure($build, $build->leads['W1'])?->in('A') ?? 0.0;
        };

        self::assertGreaterThan(5.0, $carries(1));
        self::assertEqualsWithDelta(2 * $carries(1), $carries(2), 1e-9);
    }

    public function test_what_packs_and_drawer_leave_over_is_to_spare(): void
    {
        $file = [
            'parts' => [['ref' => 's', 'family' => 'screw', 'name' => 'M5 × 16']],
            'needs' => [
                [
                    'ref' => 's',
                    'role' => 'Screws',
                    'family' => 'screw',
                    'quantity' => 23,
                    'owned' => 5,
                    'candidates' => ['s'],
                    'choice' => 's',
                ],
            ],
            'suppliers' => [['ref' => 'a', 'name' => 'A', 'currency' => 'GBP']],
            'offers' => [
                ['ref' => '1', 'part' => 's', 'supplier' => 'a', 'price' => '2', 'pack' => 10, 'date' => '2026-11-01'],
            ],
        ];

        // 18 to be bought in tens: 20, and 5 of one's own: 25 for 23.
        self::assertStringContainsString('23 needed, 2 to spare', (new SampleBuild($file))->finding('S07/s')->headline);
    }

    public function test_a_fuse_of_a_vehicle_is_rated_for_direct_current_and_a_glass_one_says_nothing_of_it(): void
    {
        $on = static fn (string $kind, string $rating): Verdict => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '48 V']),
                    Examples::part('F1', 'fuse', [
                        'kind' => $kind,
                        'rated_current' => '5 A',
                        'voltage_rating' => $rating,
                    ]),
                    Examples::part('drive', 'motor_driver', []),
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drive.power', 'protection' => 'F1']]],
            ),
        ))->finding('E26/W1')->verdict;

        self::assertSame(Verdict::Holds, $on('blade', '58 V'));
        self::assertContains($on('blade', '32 V'), [Verdict::Fails, Verdict::Danger]);
        self::assertSame(Verdict::Unproven, $on('glass', '250 V'));
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
