<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Electrical\Rules\MotorCurrent;
use Magpie\Core\Electrical\Rules\MovingLead;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Inspection\WorkingStep;
use Magpie\Core\Mechanical\Rules\CutOut;
use Magpie\Core\Mechanical\Rules\CutterFit;
use Magpie\Core\Mechanical\Rules\HandWheel;
use Magpie\Core\Mechanical\Rules\InertiaRatio;
use Magpie\Core\Mechanical\Rules\TravelStack;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Motion\Views\TurningParts;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * Figures worked out a second way, by hand, and bands held at both of their edges: a constant or a sign changed is
 * seen.
 */
final class FiguresTest extends TestCase
{
    /** The result of one line of a finding's working, in a unit. */
    private static function worked(Finding $finding, string $label, string $unit): float
    {
        foreach ($finding->working as $step) {
            if ($step->label === $label && $step->result !== null) {
                return $step->result->in($unit);
            }
        }
        self::fail("{$finding->key()} has no line \"{$label}\".");
    }

    /**
     * @param  array<string, mixed>  $need
     * @param  list<string>  $motors
     */
    private static function onAScrew(array $need = [], array $motors = ['motor']): SampleBuild
    {
        $file = SampleAxis::file(['by' => 'bar', 'motors' => $motors]);
        [$part, $its] = Examples::part('bar', 'drive_screw', [
            'lead' => '5 mm',
            'diameter' => '16 mm',
            'length' => '500 mm',
        ]);
        $file['parts'][] = $part;
        $file['needs'][] = $need + $its;
        $file['needs'][] = [
            'ref' => 'motor-2',
            'role' => 'Second motor',
            'family' => 'stepper_motor',
            'candidates' => ['motor'],
            'choice' => 'motor',
        ];

        return new SampleBuild($file);
    }

    public function test_a_screw_turns_like_a_steel_bar(): void
    {
        // ½ m r²: m = π/4 × 0.016² × 0.5 × 7850 = 0.78917 kg, r = 8 mm: 0.25253 kg cm².
        $label = 'Screw, as a steel bar of its diameter';
        self::assertEqualsWithDelta(0.25253, self::worked(self::onAScrew()->finding('M04/x'), $label, 'kg cm²'), 1e-4);
        self::assertEqualsWithDelta(
            0.50506,
            self::worked(self::onAScrew(['quantity' => 2])->finding('M04/x'), $label, 'kg cm²'),
            1e-4,
            'Two of them turn together.',
        );
    }

    public function test_two_motors_on_an_axis_bring_two_rotors(): void
    {
        $one = self::onAScrew()->finding('M04/x');
        $two = self::onAScrew([], ['motor', 'motor-2'])->finding('M04/x');
        $label = 'Load for one of rotor';

        self::assertEqualsWithDelta(self::worked($one, $label, '') / 2, self::worked($two, $label, ''), 1e-6);
    }

    /**
     * 0.6 kg at 16 teeth of 2 mm: 0.6 × (32 mm / 2π)² = 0.15563 kg cm²; 0.1 kg cm² turn beside it, and stay; on a rotor of
     * 0.072 kg cm². Geared two to one: a quarter of each.
     */
    public function test_what_another_pulley_would_make_of_it_keeps_what_turns_and_needs_its_size(): void
    {
        $remarks = static function (array $drive, array $sheet): array {
            $file = SampleAxis::file($drive + ['inertia' => '0.1 kg cm²']);
            [$part] = Examples::part('small', 'pulley', $sheet);
            $file['parts'][] = ['name' => 'Small pulley'] + $part;
            foreach ($file['needs'] as $i => $need) {
                $need['ref'] === 'pulley' && ($file['needs'][$i]['candidates'] = ['pulley', 'small']);
            }
            $texts = array_map(
                static fn (WorkingStep $s): string => $s->text(),
                (new SampleBuild($file))->finding('M04/x')->working,
            );

            return array_values(preg_grep('/^With /', $texts) ?: []);
        };

        self::assertSame(
            ['With Small pulley, 16 teeth: 3.55 times.'],
            $remarks([], ['teeth' => '16', 'pitch' => '2 mm']),
        );
        self::assertSame(
            ['With Small pulley, 16 teeth: 0.888 times.'],
            $remarks(['ratio' => '2'], ['teeth' => '16', 'pitch' => '2 mm']),
        );
        self::assertSame([], $remarks([], ['teeth' => '16']), 'Without its pitch nothing is known of it.');
    }

    public function test_a_motor_s_own_curve_is_worth_as_much_as_the_current_it_gets(): void
    {
        $push = static function (string $set): float {
            $file = SampleAxis::file();
            $file['parts'][2]['specs']['set_current']['value'] = $set;
            $file['parts'][3]['specs'] += Examples::sheet(['torque_curve' => '0 rpm 3 N m; 3000 rpm 3 N m']);

            return self::worked((new SampleBuild($file))->finding('M03/x'), 'Push when it is stopped', 'N');
        };

        // 3 N m at 1.5 of 1.8 A, 95 %, 40 mm a turn: 2.5 × 2π × 0.95 / 0.04. More than its current makes it no stronger.
        self::assertEqualsWithDelta(373.06, $push('1.5 A'), 0.01);
        self::assertEqualsWithDelta(447.68, $push('1.9 A'), 0.01);
    }

    public function test_a_hand_lifts_what_stands_on_a_slope_by_its_sine(): void
    {
        $rim = static function (string $incline): float {
            $file = BuildFile::data((new HandWheel)->examples()->holding());
            $file['axes'][0]['drive']['incline'] = $incline;

            return self::worked((new SampleBuild($file))->finding('M19/z'), 'Force of the hand', 'N');
        };

        // 550 N and 20 kg × g × sin θ, at 5 mm a turn, 40 %, on 60 mm: 0.033157 of it.
        self::assertEqualsWithDelta(18.236, $rim('0 °'), 0.01);
        self::assertEqualsWithDelta(21.488, $rim('30 °'), 0.01);
        self::assertEqualsWithDelta(24.74, $rim('90 °'), 0.01);
        $file = BuildFile::data((new HandWheel)->examples()->tripping());
        self::assertStringContainsString('more than a hand gives', (new SampleBuild($file))->finding('M19/z')->headline);
        $file = BuildFile::data((new HandWheel)->examples()->holding());
        self::assertStringNotContainsString('more than a hand gives', (new SampleBuild($file))->finding('M19/z')->headline);
    }

    public function test_a_hand_wheel_is_heavy_before_it_is_too_heavy_and_a_fast_screw_runs_back(): void
    {
        $finding = static function (string $radius, string $incline = '0 °', string $efficiency = '40 %'): Finding {
            $file = BuildFile::data((new HandWheel)->examples()->holding());
            $file['axes'][0]['drive'] = ['hand_wheel' => $radius, 'incline' => $incline, 'efficiency' => $efficiency] +
                $file['axes'][0]['drive'];

            return (new SampleBuild($file))->finding('M19/z');
        };
        // 18.236 N on 60 mm: 49.7 N on 22 mm, 52.1 N on 21 mm, 121.6 N on 9 mm.
        self::assertSame(
            [Verdict::Holds, Verdict::Tight, Verdict::Fails],
            [$finding('22 mm')->verdict, $finding('21 mm')->verdict, $finding('9 mm')->verdict],
        );
        self::assertSame(Verdict::Holds, $finding('60 mm', '90 °', '50 %')->verdict);
        self::assertSame(Verdict::Tight, $finding('60 mm', '90 °', '51 %')->verdict);
        self::assertStringContainsString('runs back under its load', $finding('60 mm', '90 °', '51 %')->headline);
        self::assertSame(Verdict::Holds, $finding('60 mm', '0 °', '51 %')->verdict, 'Level, nothing hangs on it.');
    }

    public function test_a_cutter_for_less_than_the_spindle_turns_asks_for_care(): void
    {
        $file = BuildFile::data((new CutterFit)->examples()->holding());
        $file['parts'][0]['specs']['top_speed']['value'] = '11900 rpm';
        self::assertSame(Verdict::Tight, (new SampleBuild($file))->finding('M08/cutter')->verdict);
        $file['parts'][0]['specs']['top_speed']['value'] = '12100 rpm';
        self::assertSame(Verdict::Holds, (new SampleBuild($file))->finding('M08/cutter')->verdict);
    }

    public function test_stranded_conductors_move_seldom(): void
    {
        $file = BuildFile::data((new MovingLead)->examples()->holding());
        $file['leads'][0]['conductor']['stranding'] = 'stranded';
        self::assertSame(Verdict::Tight, (new SampleBuild($file))->finding('E19/W1')->verdict);
    }

    public function test_half_a_print_recipe_is_asked_for_the_other_half(): void
    {
        foreach ([['walls' => '4'], ['infill' => '40 %']] as $half) {
            $finding = (new SampleBuild(Examples::file([Examples::part('p', 'printed_part', $half)])))->finding('M13-recipe/p');
            self::assertSame(Verdict::Unproven, $finding->verdict);
            self::assertNotSame([], $finding->missing);
        }
    }

    public function test_only_plain_steel_rusts(): void
    {
        $says = static fn (array $sheet): string => (new SampleBuild(
            Examples::file([Examples::part('s', 'screw', $sheet)], ['site' => ['humidity' => '72 %']]),
        ))->finding('M10-rust/humidity')->headline;

        self::assertStringContainsString('plain steel rusts. s.', $says(['grade' => '8.8']));
        self::assertStringContainsString('no plain steel', $says(['grade' => 'A2-70']));
        self::assertStringContainsString('no plain steel', $says(['grade' => '8.8', 'coating' => 'zinc']));
    }

    /**
     * m 12 kg, a 2 m/s², F 200 N, h 80 mm, l 120 mm, two blocks: P = m·g·cosθ/2 + (24 + m·g·sinθ + 200) × 80/120.
     *
     * @return iterable<string, array{string, float}>
     */
    public static function inclines(): iterable
    {
        yield 'level' => ['0 °', 208.17];
        yield 'inclined' => ['30 °', 239.52];
        yield 'upright' => ['90 °', 227.79];
    }

    #[DataProvider('inclines')]
    public function test_blocks_of_an_inclined_guide(string $incline, float $newton): void
    {
        $file = Examples::file(
            [Examples::part('rail', 'linear_rail', ['static_load' => '8000 N', 'dynamic_load' => '5000 N'])],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'rail' => 'rail',
                        'blocks' => 2,
                        'drive' => [
                            'mass' => '12 kg',
                            'force' => '200 N',
                            'acceleration' => '2 m/s²',
                            'incline' => $incline,
                            'lever' => '80 mm',
                            'spread' => '120 mm',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );
        self::assertEqualsWithDelta(
            $newton,
            self::worked((new SampleBuild($file))->finding('M07/x'), 'Load on the worst block', 'N'),
            0.02,
        );
    }

    /**
     * @return iterable<string, array{string, Verdict}>
     */
    public static function fuses(): iterable
    {
        yield 'nine kelvin above the work' => ['119 °C', Verdict::Fails];
        yield 'ten above it' => ['120 °C', Verdict::Holds];
        yield 'just below what the material stands' => ['179 °C', Verdict::Holds];
        yield 'just above it' => ['181 °C', Verdict::Danger];
    }

    #[DataProvider('fuses')]
    public function test_a_thermal_fuse_between_the_work_and_the_material(string $fuse, Verdict $verdict): void
    {
        $file = Examples::file([
            Examples::part('bed', 'heater', [
                'place' => 'bed',
                'target' => '110 °C',
                'thermal_fuse' => $fuse,
                'material_limit' => '180 °C',
            ]),
        ]);
        self::assertSame($verdict, (new SampleBuild($file))->finding('T03/bed')->verdict);
    }

    public function test_a_chain_is_full_at_sixty_per_cent(): void
    {
        // 15 × 10 mm: four leads of 5.2 mm take 84.9 mm², 56.6 %; of 5.4 mm 91.6 mm², 61.1 %.
        foreach (['5.2 mm' => Verdict::Holds, '5.4 mm' => Verdict::Tight] as $diameter => $verdict) {
            $parts = [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('chain', 'cable_chain', [
                    'inner_width' => '15 mm',
                    'inner_height' => '10 mm',
                    'bend_radius' => '60 mm',
                    'length' => '0.6 m',
                ]),
            ];
            $leads = [];
            foreach ([1, 2, 3, 4] as $i) {
                $parts[] = Examples::part("fan{$i}", 'fan', ['rated_current' => '0.1 A']);
                $leads[] = [
                    'ref' => "W{$i}",
                    'from' => 'psu.out',
                    'to' => "fan{$i}.power",
                    'chain' => 'chain',
                    'diameter' => $diameter,
                    'length' => '1.2 m',
                ];
            }
            self::assertSame(
                $verdict,
                (new SampleBuild(Examples::file($parts, ['leads' => $leads])))->finding('E19-chain/chain')->verdict,
                $diameter,
            );
        }
    }

    /**
     * @return iterable<string, array{string, array{array<string, mixed>, array<string, mixed>}, array<string, mixed>, list<array<string, string>>|null, Verdict}>
     *     least load, part and need, more of the need, what is on in each scenario
     */
    public static function quietLoads(): iterable
    {
        $lamp = Examples::part('load', 'lamp', ['rated_voltage' => '12 V', 'rated_current' => '1 A']);
        $weaker = $lamp;
        $weaker[0]['specs']['rated_current']['tolerance'] = '10 %';
        $display = Examples::part('load', 'display', ['rated_voltage' => '12 V', 'rated_current' => '1 A']);
        $on = [['load' => '100 %']];
        yield 'as much as it wants' => ['0.99 A', $lamp, [], $on, Verdict::Holds];
        yield 'too little at the most' => ['1.01 A', $lamp, [], $on, Verdict::Tight];
        yield 'two of them' => ['1.9 A', $lamp, ['quantity' => 2], $on, Verdict::Holds];
        yield 'half the light' => ['0.51 A', $lamp, [], [['load' => '50 %']], Verdict::Tight];
        yield 'on in one scenario, off in another' => ['0.5 A', $lamp, [], [['load' => '100 %'], []], Verdict::Tight];
        yield 'nobody says what is on at rest' => ['0.5 A', $lamp, [], null, Verdict::Unproven];
        yield 'at the low end of its tolerance' => ['0.95 A', $weaker, [], $on, Verdict::Tight];
        yield 'electronics that may take less than their sheet says' => ['0.5 A', $display, [], $on, Verdict::Unproven];
        yield 'none is wanted' => ['0 A', $display, [], null, Verdict::Holds];
    }

    /**
     * @param  array{array<string, mixed>, array<string, mixed>}  $load
     * @param  array<string, mixed>  $need
     * @param  list<array<string, string>>|null  $scenarios  what is on in each
     */
    #[DataProvider('quietLoads')]
    public function test_a_supply_that_wants_a_load_says_when_it_may_have_too_little(
        string $least,
        array $load,
        array $need,
        ?array $scenarios,
        Verdict $verdict,
    ): void {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '12 V',
                    'rated_current' => '30 A',
                    'start_line' => 'tied to common',
                    'least_load' => $least,
                ]),
                $load,
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'load.power']]],
        );
        foreach ($file['needs'] as $i => $one) {
            $file['needs'][$i] = $one['ref'] === 'load' ? $need + $one : $one;
        }
        foreach ($scenarios ?? [] as $i => $loads) {
            $file['scenarios'][] = ['ref' => "s{$i}", 'name' => "Scenario {$i}", 'loads' => $loads];
        }
        $finding = (new SampleBuild($file))->finding('E24/psu');
        self::assertSame($verdict, $finding->verdict);
        if ($verdict === Verdict::Tight) {
            // What is taken at the most, or surely where nothing else may take more.
            $taken = ['1.01 A' => '1 A', '0.51 A' => '0.5 A', '0.5 A' => '0 A', '0.95 A' => '0.9 A'][$least];
            self::assertStringContainsString("At its quietest {$taken} are", str_replace("\u{a0}", ' ', $finding->headline));
        }
    }

    public function test_a_speed_up_within_the_limit_brings_the_load_to_just_that(): void
    {
        $finding = (new SampleBuild(BuildFile::data((new InertiaRatio)->examples()->tripping())))->finding('M04/x');
        $ratio = self::worked($finding, 'Load for one of rotor', '');
        $up = self::worked($finding, 'Largest speed-up within that', '');
        // Geared up by i the motor feels the load i² times over.
        self::assertEqualsWithDelta(10, $ratio * $up ** 2, 1e-6);
    }

    public function test_what_is_more_than_a_rail_is_named_without_a_sign(): void
    {
        $file = BuildFile::data((new TravelStack)->examples()->tripping());
        $file['parts'][0]['specs']['length']['value'] = '100 mm';
        // 100 less two blocks 58 long, 80 apart, and 16 for stops: 154 in all.
        self::assertStringContainsString(
            'ask for 54 mm more than there is',
            str_replace("\u{a0}", ' ', (new SampleBuild($file))->finding('M01/x')->headline),
        );
    }

    public function test_an_opening_may_be_a_little_larger_than_what_goes_through_it(): void
    {
        $file = BuildFile::data((new CutOut)->examples()->holding());
        foreach (['32 mm' => Verdict::Holds, '33.5 mm' => Verdict::Holds, '33.6 mm' => Verdict::Fails, '31.9 mm' => Verdict::Fails] as $made => $verdict) {
            $file['needs'][0]['opening'] = $made;
            $finding = (new SampleBuild($file))->finding('M09-cutout/m');
            self::assertSame($verdict, $finding->verdict, $made);
            if ($made === '33.6 mm') {
                self::assertSame('32 mm to 33.5 mm', str_replace("\u{a0}", ' ', (string) $finding->limit));
            }
        }
    }

    public function test_two_motors_on_one_driver_stand_twice_the_current(): void
    {
        $file = MotorCurrent::axis(['set_current' => '3 A', 'continuous_current' => '10 A']);
        $file['needs'][] = ['ref' => 'other', 'role' => 'Other motor'] + $file['needs'][2];
        $file['leads'][] = ['ref' => 'W3', 'from' => 'drv.motor', 'to' => 'other.phases'];
        $finding = (new SampleBuild($file))->finding('E08/drv');
        // 1.5 A through each of 2.2 A: of the 4.4 A both stand 32 % are left.
        self::assertSame(Verdict::Holds, $finding->verdict, $finding->headline);
        self::assertEqualsWithDelta(1 - 3 / 4.4, $finding->margin?->in(''), 1e-9);
    }

    public function test_a_sheet_has_ten_millimetres_to_spare_on_each_side(): void
    {
        // 320 mm are usual on 300, and five less still do.
        foreach (
            ['299 mm' => Verdict::Fails, '314 mm' => Verdict::Tight, '315 mm' => Verdict::Holds] as $side => $verdict
        ) {
            $file = Examples::file(
                [Examples::part('sheet', 'build_sheet', ['length' => $side, 'width' => $side])],
                ['brief' => ['size' => ['x' => '300 mm', 'y' => '300 mm', 'z' => '300 mm']]],
            );
            self::assertSame($verdict, (new SampleBuild($file))->finding('M15/sheet')->verdict, $side);
        }
    }

    public function test_turning_parts_weigh_what_their_material_does(): void
    {
        // 54 mm across, 30 mm long: 68.71 cm³; ½ m r² with r = 27 mm.
        foreach (['aluminium' => 0.18551, 'steel' => 0.53935] as $material => $mass) {
            $found = TurningParts::of([['outer' => 54.0, 'bore' => 0.0, 'length' => 30.0, 'material' => $material]]);
            self::assertEqualsWithDelta($mass, $found['mass']->in('kg'), 1e-4);
            self::assertEqualsWithDelta(0.5 * $mass * 2.7 ** 2, $found['inertia']->in('kg cm²'), 1e-3);
        }
    }

    public function test_a_contingency_is_put_on_top(): void
    {
        $planned = static fn (?string $contingency): float => (float) (new MoneyLedger(
            BuildFile::build([
                'magpie' => 1,
                'build' => array_filter([
                    'name' => 'M',
                    'kind' => 'router',
                    'currency' => 'GBP',
                    'contingency' => $contingency,
                ]),
                'parts' => [['ref' => 'p', 'family' => 'fan', 'name' => 'Fan']],
                'needs' => [
                    [
                        'ref' => 'n',
                        'role' => 'Fan',
                        'family' => 'fan',
                        'quantity' => 4,
                        'candidates' => ['p'],
                        'choice' => 'p',
                    ],
                ],
                'suppliers' => [
                    ['ref' => 's', 'name' => 'S', 'currency' => 'GBP', 'shipping' => [['from' => '0', 'cost' => '0']]],
                ],
                'offers' => [
                    ['ref' => 'o', 'part' => 'p', 'supplier' => 's', 'price' => '5.00', 'date' => '2026-11-01'],
                ],
            ]),
        ))->toArray()['planned'];
        self::assertSame(20.0, $planned(null));
        self::assertSame(22.0, $planned('10 %'));
    }
}
