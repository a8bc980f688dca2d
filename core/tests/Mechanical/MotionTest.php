<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\ScrewSupport;
use Magpie\Core\Mechanical\Cutting;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Motion\ScrewEnds;
use Magpie\Core\Motion\TorqueCurve;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Motion, against the handbook's worked values, catalogue constants, the theory of beams and sums by other ways. */
final class MotionTest extends TestCase
{
    private static function worked(Finding $finding, string $label): Quantity
    {
        foreach ($finding->working as $step) {
            if (str_starts_with($step->label, $label) && $step->result !== null) {
                return $step->result;
            }
        }
        self::fail(
            "No line \"{$label}\" in ".
                implode(' / ', array_map(static fn ($s): string => $s->label, $finding->working)),
        );
    }

    /**
     * @param  array<string, mixed>  $drive
     * @param  array<string, string|bool>  $motor
     * @return array<string, mixed>
     */
    private static function screwAxis(array $drive, string $lead, array $motor = []): array
    {
        $file = SampleAxis::file(['by' => 'screw'] + $drive);
        [$part, $need] = Examples::part('screw', 'drive_screw', ['lead' => $lead]);
        $file['parts'][] = $part;
        $file['needs'][] = $need;
        foreach ($file['parts'] as &$one) {
            $one['specs'] =
                $one['ref'] === 'motor' ? array_replace($one['specs'], Examples::sheet($motor)) : $one['specs'];
        }

        return $file;
    }

    public function test_a_kilogram_lifted_by_a_lead_screw(): void
    {
        // Handbook M03: 1 kg, 8 mm lead, η 0.3: 0.042 N·m before acceleration. F·s/(2πη) by hand: 9.807 × 0.008 / (2π ×
        // 0.3) = 0.0416.
        $finding = (new SampleBuild(
            self::screwAxis(
                ['mass' => '1 kg', 'incline' => '90 °', 'efficiency' => '30 %', 'friction' => '0 N'],
                '8 mm',
            ),
        ))->finding('M03/x');

        self::assertEqualsWithDelta(0.0416, self::worked($finding, 'Torque while it runs')->in('N m'), 0.0001);
    }

    public function test_the_acceleration_it_has_torque_for_is_where_the_check_turns(): void
    {
        $figure = static fn (string $key, string $acceleration): Quantity => (new SampleBuild(
            SampleAxis::file(['acceleration' => $acceleration]),
        ))->finding('M03/x')->figures[$key][1];
        $verdict = static fn (float $acceleration): Verdict => (new SampleBuild(
            SampleAxis::file(['acceleration' => "{$acceleration} mm/s²"]),
        ))->finding('M03/x')->verdict;

        $most = $figure('acceleration', '3000 mm/s²')->in('mm/s²');
        // What it could do is no matter of what is asked of it.
        self::assertEqualsWithDelta($most, $figure('acceleration', '9000 mm/s²')->in('mm/s²'), 1.0);
        self::assertSame(Verdict::Holds, $verdict($most * 0.999));
        self::assertSame(Verdict::Tight, $verdict($most * 1.001));
    }

    public function test_a_stopped_axis_pushes_with_all_its_holding_torque_and_its_weight(): void
    {
        // F = 2πηT/s by hand: 2π × 0.95 × 0.45 × 1.5/1.8 / 0.040 m = 55.96 N; upright, 0.6 kg more.
        $push = static fn (string $incline): float => (new SampleBuild(SampleAxis::file(['incline' => $incline])))
            ->finding('M03/x')
            ->figures['stall'][1]->in('N');

        self::assertEqualsWithDelta(55.96, $push('0 °'), 0.01);
        self::assertEqualsWithDelta(55.96 + 0.6 * 9.80665, $push('90 °'), 0.01);
    }

    public function test_both_unit_systems_agree(): void
    {
        $metric = (new SampleBuild(
            self::screwAxis(['mass' => '10 kg', 'top_speed' => '254 mm/s', 'friction' => '44.482216 N'], '12.7 mm'),
        ))->finding('M03/x');
        $inch = (new SampleBuild(
            self::screwAxis(['mass' => '22.0462262 lb', 'top_speed' => '10 in/s', 'friction' => '10 lbf'], '0.5 in'),
        ))->finding('M03/x');

        self::assertEqualsWithDelta(
            self::worked($metric, 'Torque while it accelerates')->in('N m'),
            self::worked($inch, 'Torque while it accelerates')->in('N m'),
            1e-6,
        );
    }

    public function test_work_done_is_energy_gained(): void
    {
        // Torque × angle while it accelerates = ½mv² + ½Jω² + friction × way, with nothing lost in the screw.
        $file = self::screwAxis(
            [
                'mass' => '8 kg',
                'efficiency' => '100 %',
                'friction' => '12 N',
                'acceleration' => '2 m/s²',
                'top_speed' => '200 mm/s',
                'inertia' => '0.3 kg cm²',
            ],
            '10 mm',
            ['rotor_inertia' => '400 g cm²'],
        );
        $torque = self::worked((new SampleBuild($file))->finding('M03/x'), 'Torque while it accelerates')->in('N m');
        $way = 0.2 ** 2 / (2 * 2);
        $omega = (0.2 / 0.01) * 2 * M_PI;
        $energy = 0.5 * 8 * 0.2 ** 2 + 0.5 * (0.3e-4 + 400e-7) * $omega ** 2 + 12 * $way;

        self::assertEqualsWithDelta($energy, $torque * ($way / 0.01) * 2 * M_PI, $energy * 1e-6);
    }

    /**
     * Handbook M04: 3.33 kg at r 27.05 mm as a cylinder is 12.18 kg·cm²; through a 2:1 speed-up 48.7; against rotors of
     * 2.45 and 3.71 kg·cm²: 19.9 and 13.1.
     *
     * @return iterable<string, array{string, float, Verdict}>
     */
    public static function rotors(): iterable
    {
        yield '2.45' => ['2.45 kg cm²', 19.9, Verdict::Fails];
        yield '3.71' => ['3.71 kg cm²', 13.1, Verdict::Fails];
        yield 'exactly ten is tight with nothing left' => [
            0.5 * 3.33 * 27.05e-3 ** 2 * 1e4 * 0.4.' kg cm²',
            10.0,
            Verdict::Tight,
        ];
        yield 'below ten' => ['6 kg cm²', 8.12, Verdict::Holds];
    }

    #[DataProvider('rotors')]
    public function test_inertia_through_a_speed_up(string $rotor, float $ratio, Verdict $verdict): void
    {
        $cylinder = 0.5 * 3.33 * 27.05e-3 ** 2 * 1e4;
        self::assertEqualsWithDelta(12.18, $cylinder, 0.01);
        // The load turns twice as fast as the motor: i = 0.5.
        $file = self::screwAxis(
            ['mass' => '0.000001 kg', 'inertia' => "{$cylinder} kg cm²", 'ratio' => '0.5'],
            '5 mm',
            ['rotor_inertia' => $rotor],
        );
        $finding = (new SampleBuild($file))->finding('M04/x');

        self::assertEqualsWithDelta($ratio, self::worked($finding, 'Load for one of rotor')->in(''), 0.06);
        self::assertSame($verdict, $finding->verdict, $finding->headline);
    }

    /**
     * Whirl: 0.8 × 60λ²/(2πL²)·√(EI/ρA) for steel (E 206 GPa, ρ 7850), λ = 1.875, π, 3.927, 4.730; buckling: half of
     * Euler
     * with end factors ¼, 1, 2, 4. The catalogues' constants must come out.
     *
     * @return iterable<string, array{ScrewSupport, float, float}>
     */
    public static function ends(): iterable
    {
        yield 'fixed-free' => [ScrewSupport::FixedFree, 1.875, 0.25];
        yield 'supported' => [ScrewSupport::Supported, M_PI, 1.0];
        yield 'fixed-supported' => [ScrewSupport::FixedSupported, 3.927, 2.0];
        yield 'fixed-fixed' => [ScrewSupport::FixedFixed, 4.73, 4.0];
    }

    #[DataProvider('ends')]
    public function test_the_constants_of_the_catalogues_follow_from_theory(
        ScrewSupport $ends,
        float $lambda,
        float $euler,
    ): void {
        [$whirl, $buckle] = ScrewEnds::of($ends);
        // A rod of 1 mm and 1 mm: I/A = d²/16; rpm for d/L² of one per millimetre.
        $theory = (((0.8 * 60 * $lambda ** 2) / (2 * M_PI)) * sqrt(206e9 / 7850 / 16) * 1e-3) / 1e-6 / 1e7;
        self::assertEqualsWithDelta($whirl, $theory, $whirl * 0.02);
        $load = (((0.5 * $euler * M_PI ** 2 * 206e9 * M_PI) / 64) * 1e-3 ** 4) / 1e-3 ** 2 / 1e4;
        self::assertEqualsWithDelta($buckle, $load, $buckle * 0.05);
    }

    public function test_a_screw_at_its_limits(): void
    {
        $file = static fn (string $speed, string $force): array => Examples::file(
            [
                Examples::part('screw', 'drive_screw', [
                    'diameter' => '16 mm',
                    'root_diameter' => '13 mm',
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
                            'force' => $force,
                            'friction' => '20 N',
                            'incline' => '0 °',
                            'support' => 'fixed-supported',
                            'unsupported' => '860 mm',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );
        // 15.1e7 × 13 / 860² = 2654 rpm, 221 mm/s on a lead of 5; by hand.
        self::assertEqualsWithDelta(
            2654,
            self::worked((new SampleBuild($file('200 mm/s', '0 N')))->finding('M05/x'), 'Allowed before')->in('rpm'),
            1,
        );
        self::assertSame(Verdict::Holds, (new SampleBuild($file('220 mm/s', '0 N')))->finding('M05/x')->verdict);
        self::assertSame(Verdict::Tight, (new SampleBuild($file('230 mm/s', '0 N')))->finding('M05/x')->verdict);
        self::assertSame(Verdict::Fails, (new SampleBuild($file('320 mm/s', '0 N')))->finding('M05/x')->verdict);
        // 10e4 × 13⁴ / 860² = 3862 N.
        self::assertSame(Verdict::Danger, (new SampleBuild($file('100 mm/s', '4000 N')))->finding('M05/x')->verdict);
    }

    public function test_torque_over_speed_from_points_and_from_the_corner(): void
    {
        $estimate = TorqueCurve::estimate(Quantity::of(1, 'N m'), Quantity::of(10, 'rev/s'));
        foreach ([[0, 1.0], [10, 1.0], [11, 10 / 11], [20, 0.5], [33, 10 / 33], [100, 0.1], [200, 0.05]] as [$n, $t]) {
            self::assertEqualsWithDelta($t, $estimate->at(Quantity::of($n, 'rev/s'))->in('N m'), 1e-9, "{$n} rev/s");
        }
        $curve = TorqueCurve::read('0 rpm 1.2 N m; 600 rpm 0.8 N m; 1200 rpm 0.2 N m;');
        self::assertEqualsWithDelta(1.0, $curve->at(Quantity::of(300, 'rpm'))->in('N m'), 1e-9);
        self::assertEqualsWithDelta(0.5, $curve->at(Quantity::of(900, 'rpm'))->in('N m'), 1e-9);
        self::assertSame(
            0.0,
            $curve->at(Quantity::of(1500, 'rpm'))->in('N m'),
            'Beyond the curve nobody promises anything.',
        );
    }

    public function test_a_curve_that_cannot_be_read_is_no_reason_to_guess_and_one_that_is_assumed_proves_nothing(): void
    {
        $with = static function (string $curve, string $evidence): SampleBuild {
            $file = SampleAxis::file();
            foreach ($file['parts'] as $i => $part) {
                if ($part['family'] === 'stepper_motor') {
                    $file['parts'][$i]['specs']['torque_curve'] = ['value' => $curve, 'evidence' => $evidence];
                }
            }

            return new SampleBuild($file);
        };
        self::assertSame(Verdict::Holds, $with('0 rpm 3 N m; 3000 rpm 3 N m', 'datasheet')->finding('M03/x')->verdict);
        self::assertSame(Verdict::Unproven, $with('0 rpm 3 N m; 3000 rpm 3 N m', 'assumed')->finding('M03/x')->verdict);
        foreach (
            [
                '3 N m at 600' => 'a speed and a torque',
                '0 rpm 3 N m' => 'at least two points',
                '0 rpm 3 V; 600 rpm 3 N m' => 'is a voltage',
            ] as $text => $reason
        ) {
            $finding = $with($text, 'datasheet')->finding('M03/x');
            self::assertSame(Verdict::Unproven, $finding->verdict, $text);
            self::assertStringContainsString($reason, $finding->headline);
        }
    }

    public function test_what_is_missing_never_reads_as_strong_enough(): void
    {
        foreach (['mass', 'acceleration', 'top_speed', 'friction', 'efficiency', 'incline'] as $member) {
            $file = SampleAxis::file();
            unset($file['axes'][0]['drive'][$member]);
            self::assertSame(Verdict::Unproven, (new SampleBuild($file))->finding('M03/x')->verdict, $member);
        }
        self::assertSame(Verdict::Holds, (new SampleBuild(SampleAxis::file()))->finding('M03/x')->verdict);
        $file = SampleAxis::file(['evidence' => 'listing']);
        self::assertSame(Verdict::Unproven, (new SampleBuild($file))->finding('M03/x')->verdict);
    }

    public function test_an_upright_axis_when_the_power_drops(): void
    {
        // 12 kg on a 5 mm ball screw: (117.7 − 5) × 0.005 × 0.9 / 2π = 0.0807 N·m against 5 % of 1 N·m.
        $file = static fn (array $drive, array $motor = []): array => Examples::file(
            [
                Examples::part('motor', 'stepper_motor', $motor + ['holding_torque' => '1 N m', 'brake' => false]),
                Examples::part('screw', 'drive_screw', ['lead' => '5 mm']),
            ],
            [
                'axes' => [
                    [
                        'ref' => 'z',
                        'name' => 'Z',
                        'along' => 'z',
                        'drive' => $drive + [
                            'motors' => ['motor'],
                            'by' => 'screw',
                            'mass' => '12 kg',
                            'friction' => '5 N',
                            'efficiency' => '90 %',
                            'incline' => '90 °',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );
        $falls = (new SampleBuild($file([])))->finding('M03-drop/z');

        self::assertSame(Verdict::Fails, $falls->verdict);
        self::assertEqualsWithDelta(0.0807, self::worked($falls, 'Torque that turns')->in('N m'), 0.0001);
        self::assertSame(
            Verdict::Holds,
            (new SampleBuild($file([], ['brake' => true])))->finding('M03-drop/z')->verdict,
        );
        self::assertSame(
            Verdict::Holds,
            (new SampleBuild($file(['efficiency' => '35 %'])))->finding('M03-drop/z')->verdict,
            'A lead screw of 35 % locks itself.',
        );
        // Two motors hold with twice the detent: 0.1 against 0.0807.
        $pair = $file(['motors' => ['motor', 'other']]);
        $pair['needs'][] = ['ref' => 'other', 'role' => 'Other motor'] + $pair['needs'][0];
        self::assertSame(Verdict::Holds, (new SampleBuild($pair))->finding('M03-drop/z')->verdict);
        // A belt of poor efficiency does not lock, and what nobody says of friction holds nothing.
        $belt = $file(['efficiency' => '35 %', 'mass' => '3 kg']);
        $belt['parts'][1] = Examples::part('screw', 'pulley', ['teeth' => '20', 'pitch' => '2 mm'])[0];
        $belt['needs'][1]['family'] = 'pulley';
        $pull = self::worked((new SampleBuild($belt))->finding('M03-drop/z'), 'Torque that turns');
        self::assertEqualsWithDelta(((3 * 9.80665 - 5) * 0.04 * 0.35) / (2 * M_PI), $pull->in('N m'), 1e-6);
        $rubs = $file(['mass' => '2 kg']);
        unset($rubs['axes'][0]['drive']['friction']);
        self::assertEqualsWithDelta(
            (2 * 9.80665 * 0.005 * 0.9) / (2 * M_PI),
            self::worked((new SampleBuild($rubs))->finding('M03-drop/z'), 'Torque that turns')->in('N m'),
            1e-6,
        );
    }

    public function test_a_servo_without_a_brake_lets_its_axis_down(): void
    {
        $finding = static function (bool $brake, string $mass): Finding {
            $file = SampleAxis::file(['incline' => '90 °', 'mass' => $mass, 'friction' => '30 N', 'motors' => ['servo']]);
            [$part, $need] = Examples::part('servo', 'servo_motor', ['rated_torque' => '1 N m', 'brake' => $brake]);
            $file['parts'][] = $part;
            $file['needs'][] = $need;

            return (new SampleBuild($file))->finding('M03-drop/x');
        };
        self::assertSame(Verdict::Fails, $finding(false, '12 kg')->verdict);
        self::assertSame(Verdict::Holds, $finding(true, '12 kg')->verdict);
        self::assertSame(Verdict::Holds, $finding(false, '3 kg')->verdict, '29.4 N against 30 N of friction.');
    }

    public function test_what_an_axis_carries_comes_down_with_it_however_little_is_said(): void
    {
        $file = SampleAxis::file(['incline' => '90 °', 'mass' => '1 kg', 'carries' => ['load']]);
        array_push($file['parts'], ...[Examples::part('load', 'spindle', ['mass' => '30 kg'])[0]]);
        array_push($file['needs'], ...[Examples::part('load', 'spindle', [])[1]]);
        $torque = static fn (array $f): float => self::worked(
            (new SampleBuild($f))->finding('M03-drop/x'),
            'Torque that turns',
        )->in('N m');
        $light = $torque(SampleAxis::file(['incline' => '90 °', 'mass' => '30 kg']));
        self::assertEqualsWithDelta($light, $torque($file), 1e-9);
        unset($file['axes'][0]['drive']['mass']);
        self::assertEqualsWithDelta($light, $torque($file), 1e-9);
    }

    public function test_guides_by_hand_and_by_iso_14728(): void
    {
        // P = 12 × 9.807/4 + (12 × 2 + 200) × 80/(120 × 2) = 29.4 + 74.7 = 104.1 N on a single rail pair; L10 =
        // (5000/P)³ × 100 km.
        $file = Examples::file(
            [
                array_replace_recursive(
                    Examples::part('rail', 'linear_rail', ['static_load' => '8000 N', 'dynamic_load' => '5000 N']),
                    [1 => ['quantity' => 2]],
                ),
            ],
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
                            'incline' => '0 °',
                            'lever' => '80 mm',
                            'spread' => '120 mm',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );
        $finding = (new SampleBuild($file))->finding('M07/x');
        $load = (12 * 9.80665) / 4 + ((12 * 2 + 200) * 0.08) / (0.12 * 2);

        self::assertEqualsWithDelta($load, self::worked($finding, 'Load on the worst block')->in('N'), 0.01);
        self::assertEqualsWithDelta((5000 / $load) ** 3 * 100, self::worked($finding, 'Travel until')->in('km'), 1);
        self::assertEqualsWithDelta(
            // Of a pair on one rail the survivor takes the whole share.
            8000 / $load / 2,
            self::worked($finding, 'Static safety with one block lost')->in(''),
            0.01,
        );
    }

    public function test_a_beam_by_the_handbook_and_by_summing_its_curvature(): void
    {
        // Handbook M12: 100 N, 500 mm, I 7300 mm⁴, 70 GPa: 0.51 mm.
        $file = Examples::file(
            [Examples::part('beam', 'extrusion', ['length' => '500 mm', 'second_moment' => '7300 mm⁴'])],
            [
                'brief' => ['accuracy' => '2 mm'],
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
        $bend = self::worked((new SampleBuild($file))->finding('M12/x'), 'It bends in the middle')->in('mm');
        self::assertEqualsWithDelta(0.51, $bend, 0.005);
        // y'' = M/EI from the left support to the middle, M = F·x/2, slope nought in the middle; summed in 20 000
        // steps.
        [$n, $l, $ei] = [20_000, 0.25, 70e9 * 7300e-12];
        $slope = $deflection = 0.0;
        for ($i = 0; $i < $n; $i++) {
            $x = $l - (($i + 0.5) * $l) / $n;
            $slope += (((100 * $x) / 2 / $ei) * $l) / $n;
            $deflection += ($slope * $l) / $n;
        }
        self::assertEqualsWithDelta($deflection * 1000, $bend, 0.001);
        // Where nothing is cut, what it carries bends it when it is thrown about: 10 kg at 10 m/s² are 100 N.
        $file['axes'][0]['drive'] =
            ['force' => '0 N', 'acceleration' => '10 m/s²', 'mass' => '1 kg', 'carries' => ['load']] +
            $file['axes'][0]['drive'];
        [$part, $need] = Examples::part('load', 'spindle', ['mass' => '10 kg']);
        $file['parts'][] = $part;
        $file['needs'][] = $need;
        $thrown = self::worked((new SampleBuild($file))->finding('M12/x'), 'It bends in the middle')->in('mm');
        self::assertEqualsWithDelta($bend, $thrown, 1e-9);
    }

    public function test_cutting_data_by_the_handbook(): void
    {
        // M08: two flutes, 12 000 rpm, 0.05 mm: 1200 mm/min.
        $feed = Cutting::feed(
            Quantity::of(0.05, 'mm'),
            Quantity::ratio(2),
            Quantity::of(12_000, 'rpm'),
            Quantity::ratio(0.5),
        );
        self::assertEqualsWithDelta(1200, $feed->in('mm/min'), 0.01);
        self::assertEqualsWithDelta(
            0.05,
            Cutting::chipLoad($feed, Quantity::ratio(2), Quantity::of(12_000, 'rpm'))->in('mm'),
            1e-9,
        );
        // Chip thickness of a thin cut, by geometry: h = f_z × 2√(s(1−s)).
        foreach ([0.05, 0.1, 0.25, 0.4] as $s) {
            $engaged = sin(acos(1 - 2 * $s));
            self::assertEqualsWithDelta(1 / $engaged, Cutting::thinning(Quantity::ratio($s)), 1e-9);
        }
        self::assertSame(1.0, Cutting::thinning(Quantity::ratio(0.5)));
        // A saw blade of 60 mm at 8000 rpm: 25.1 m/s.
        self::assertEqualsWithDelta(
            25.13,
            Cutting::rim(Quantity::of(60, 'mm'), Quantity::of(8000, 'rpm'))->in('m/s'),
            0.01,
        );
    }

    public function test_melt_flow_by_the_handbook(): void
    {
        // M08: 12 mm³/s at 0.45 × 0.20: 133 mm/s. A 0.4 mm nozzle lays 0.45 × 0.20.
        $file = Examples::file(
            [Examples::part('hot', 'hot_end', ['flow' => '12 mm³/s', 'nozzle' => '0.4 mm'])],
            ['brief' => ['flow' => '10 mm³/s']],
        );

        self::assertEqualsWithDelta(
            133.3,
            self::worked((new SampleBuild($file))->finding('M08-flow/hot'), 'Speed it can feed')->in('mm/s'),
            0.1,
        );
    }

    public function test_things_that_must_not_meet_against_every_position(): void
    {
        // Against brute force: both boxes stepped through every position of their axes.
        foreach (
            [
                ['390 mm to 400 mm', '0 mm to 10 mm'],
                ['405 mm to 410 mm', '0 mm to 10 mm'],
                ['200 mm to 210 mm', '200 mm to 230 mm'],
                ['200 mm to 210 mm', '320 mm to 330 mm'],
            ] as [$x, $y]
        ) {
            $file = Examples::file(
                [
                    Examples::part('rail', 'linear_rail', ['length' => '400 mm', 'block_length' => '60 mm']),
                    Examples::part('yrail', 'linear_rail', ['length' => '300 mm', 'block_length' => '50 mm']),
                ],
                [
                    'axes' => [
                        ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'rail'],
                        ['ref' => 'y', 'name' => 'Y', 'along' => 'y', 'rail' => 'yrail'],
                    ],
                    'clearances' => [
                        [
                            'ref' => 'c',
                            'name' => 'C',
                            'between' => [
                                ['what' => 'A', 'x' => '0 mm to 60 mm', 'y' => '0 mm to 40 mm', 'moves' => ['x', 'y']],
                                ['what' => 'B', 'x' => $x, 'y' => $y],
                            ],
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            );
            $box = static fn (string $text): array => array_map(
                static fn (string $t): float => (float) $t,
                explode(' to ', $text),
            );
            [$bx, $by] = [$box($x), $box($y)];
            $meets = false;
            for ($px = 0; $px <= 340; $px += 5) {
                for ($py = 0; $py <= 250; $py += 5) {
                    $meets = $meets || ($px < $bx[1] && $px + 60 > $bx[0] && $py < $by[1] && $py + 40 > $by[0]);
                }
            }
            self::assertSame(
                $meets ? Verdict::Fails : Verdict::Holds,
                (new SampleBuild($file))->finding('M11/c')->verdict,
                "{$x}, {$y}",
            );
        }
    }

    public function test_shafts_bores_and_faces(): void
    {
        $mate = static fn (array $one, array $other): SampleBuild => new SampleBuild(
            Examples::file(
                [$one, $other],
                ['mates' => [['ref' => 'm', 'kind' => 'meets', 'between' => [$one[0]['ref'], $other[0]['ref']]]]],
            ),
        );
        $motor = static fn (string $frame): array => Examples::part('motor', 'stepper_motor', [
            'frame' => $frame,
            'shaft_diameter' => '0.25 in',
            'holding_torque' => '3 N m',
        ]);

        self::assertSame(
            Verdict::Holds,
            $mate($motor('23'), Examples::part('pulley', 'pulley', ['bore' => '6.35 mm']))->finding('M09/m')->verdict,
            'A quarter inch is 6.35 mm.',
        );
        self::assertSame(
            Verdict::Fails,
            $mate($motor('23'), Examples::part('pulley', 'pulley', ['bore' => '8 mm']))->finding('M09/m')->verdict,
        );
        self::assertSame(
            Verdict::Tight,
            $mate(
                $motor('23'),
                Examples::part('c', 'coupling', [
                    'bore_a' => '6.35 mm',
                    'bore_b' => '10 mm',
                    'rated_torque' => '5 N m',
                ]),
            )->finding('M09/m')->verdict,
            '60 % of what the coupling stands.',
        );
        // NEMA ICS 16: frame 17 holes 31.0, frame 23 47.14 and pilot 38.1, frame 34 69.6 and pilot 73.
        foreach (
            ['17' => ['31 mm', '22 mm'], '23' => ['47.14 mm', '38.1 mm'], '34' => ['69.6 mm', '73 mm']] as $frame => [$holes, $pilot]
        ) {
            self::assertSame(
                Verdict::Holds,
                $mate(
                    $motor((string) $frame),
                    Examples::part('plate', 'plate', ['hole_spacing' => $holes, 'pilot' => $pilot]),
                )->finding('M09/m')->verdict,
                "frame {$frame}",
            );
        }
        self::assertSame(
            Verdict::Fails,
            $mate(
                $motor('23'),
                Examples::part('plate', 'plate', ['hole_spacing' => '47.14 mm', 'pilot' => '36 mm']),
            )->finding('M09/m')->verdict,
        );
        // Clearance holes give a quarter of a millimetre, not half of one.
        foreach (
            ['30.75 mm' => Verdict::Holds, '31.5 mm' => Verdict::Fails, '30.5 mm' => Verdict::Fails] as $holes => $verdict
        ) {
            $plate = Examples::part('plate', 'plate', ['hole_spacing' => (string) $holes, 'pilot' => '22 mm']);
            self::assertSame($verdict, $mate($motor('17'), $plate)->finding('M09/m')->verdict, (string) $holes);
        }
    }

    public function test_print_weight_and_reels_by_the_handbook(): void
    {
        // BU-19: 20 cm³ of ASA, walls 45 % of it, 40 % infill: 14.3 g; walls 24 % and 12 % infill: 7.1 g.
        $part = static fn (string $mass, string $walls, string $infill): SampleBuild => new SampleBuild(
            Examples::file([
                [
                    [
                        'specs' => ['mass' => ['value' => $mass, 'evidence' => 'measured']] +
                            Examples::sheet([
                                'material' => 'ASA',
                                'walls' => '4',
                                'infill' => $infill,
                                'volume' => '20 cm³',
                                'wall_share' => $walls,
                            ]),
                    ] + Examples::part('p', 'printed_part', [])[0],
                    Examples::part('p', 'printed_part', [])[1],
                ],
            ]),
        );
        self::assertEqualsWithDelta(
            14.3,
            self::worked($part('14 g', '45 %', '40 %')->finding('M14-weight/p'), 'Weight by its recipe')->in('g'),
            0.05,
        );
        self::assertEqualsWithDelta(
            7.1,
            self::worked($part('7 g', '24 %', '12 %')->finding('M14-weight/p'), 'Weight by its recipe')->in('g'),
            0.05,
        );
        self::assertSame(
            Verdict::Fails,
            $part('7.1 g', '45 %', '40 %')->finding('M14-weight/p')->verdict,
            'Half the weight: walls and infill are missing.',
        );
        // Not weighed yet, it takes of the reel what its recipe gives: 1000 × 1.07 × (0.45 + 0.55 × 0.4) = 716.9 g, and a tenth.
        $recipe = ['material' => 'ASA', 'infill' => '40 %', 'volume' => '1000 cm³', 'wall_share' => '45 %'];
        $taken = static fn (array $sheet): Finding => (new SampleBuild(
            Examples::file([
                Examples::part('p', 'printed_part', $sheet),
                Examples::part('r', 'filament', ['material' => 'ASA', 'mass' => '1 kg']),
            ]),
        ))->finding('M14/r');
        self::assertEqualsWithDelta(788.59, self::worked($taken($recipe), '1 parts in ASA')->in('g'), 0.005);
        self::assertEqualsWithDelta(
            33,
            self::worked($taken(['mass' => '30 g'] + $recipe), '1 parts in ASA')->in('g'),
            0.005,
            'What it weighs counts before its recipe.',
        );
        foreach (
            [
                'infill' => 'infill of p',
                'volume' => 'mass of p',
                'wall_share' => 'share of its volume that is wall of p',
            ] as $key => $what
        ) {
            $finding = $taken(array_diff_key($recipe, [$key => true]));
            self::assertSame(Verdict::Unproven, $finding->verdict, $key);
            self::assertContains($what, $finding->missing);
        }
        // M14: 1 kg of 1.75 mm: 335 m at 1.24 g/cm³, 400 m at 1.04.
        foreach (['1.24 g/cm³' => 335, '1.04 g/cm³' => 400] as $density => $metres) {
            $reel = new SampleBuild(
                Examples::file([
                    Examples::part('r', 'filament', [
                        'material' => 'PLA',
                        'mass' => '1 kg',
                        'density' => $density,
                        'diameter' => '1.75 mm',
                    ]),
                ]),
            );
            self::assertEqualsWithDelta(
                $metres,
                self::worked($reel->finding('M14/r'), 'Length on one reel')->in('m'),
                1,
            );
        }
        self::assertEqualsWithDelta(
            12.73,
            self::worked(
                (new SampleBuild(
                    SampleAxis::file(
                        [],
                        [
                            'parts' => [
                                ...SampleAxis::file()['parts'],
                                Examples::part('belt', 'belt', ['pitch' => '2 mm'])[0],
                            ],
                            'needs' => [
                                ...SampleAxis::file()['needs'],
                                Examples::part('belt', 'belt', ['pitch' => '2 mm'])[1],
                            ],
                        ],
                    ),
                ))->finding('M06/x'),
                'Pitch diameter',
            )->in('mm'),
            0.005,
        );
        self::assertSame(
            Dimension::SecondMoment,
            Quantity::parse('7300 mm4', Dimension::SecondMoment)->unit->dimension,
        );
    }
}
