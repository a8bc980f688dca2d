<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Round things that must not meet, air for a torch, heat sinks that sit on what they cool, and pieces with names. */
final class ShapesAndAirTest extends TestCase
{
    /**
     * Gaps worked by hand: two discs of 40 mm whose middles are 50 mm and 30 mm apart across, √(50² + 30²) − 40 = 18.31.
     *
     * @return iterable<string, array{array<string, string>, array<string, string>, float}>
     */
    public static function gaps(): iterable
    {
        $disc = static fn (string $x, string $y): array => ['x' => $x, 'y' => $y, 'round' => 'z'];
        yield 'two discs' => [
            $disc('0 mm to 40 mm', '0 mm to 40 mm'),
            $disc('50 mm to 90 mm', '30 mm to 70 mm'),
            18.31,
        ];
        yield 'the same as boxes' => [
            ['x' => '0 mm to 40 mm', 'y' => '0 mm to 40 mm'],
            ['x' => '50 mm to 90 mm', 'y' => '30 mm to 70 mm'],
            10.0,
        ];
        yield 'a disc and the corner of a box' => [
            $disc('0 mm to 40 mm', '0 mm to 40 mm'),
            ['x' => '50 mm to 90 mm', 'y' => '60 mm to 70 mm'],
            30.0,
        ];
        yield 'a spacer in a gap' => [
            $disc('0 mm to 40 mm', '0 mm to 40 mm'),
            ['x' => '41 mm to 60 mm', 'y' => '-50 mm to 80 mm'],
            1.0,
        ];
        yield 'discs that meet' => [
            $disc('0 mm to 40 mm', '0 mm to 40 mm'),
            $disc('20 mm to 60 mm', '10 mm to 50 mm'),
            -17.64,
        ];
        yield 'apart along their axis' => [
            $disc('0 mm to 40 mm', '0 mm to 40 mm') + ['z' => '0 mm to 10 mm'],
            $disc('0 mm to 40 mm', '0 mm to 40 mm') + ['z' => '25 mm to 30 mm'],
            15.0,
        ];
        yield 'round about different axes are taken as boxes' => [
            $disc('0 mm to 40 mm', '0 mm to 40 mm'),
            ['y' => '30 mm to 70 mm', 'z' => '0 mm to 40 mm', 'x' => '50 mm to 90 mm', 'round' => 'x'],
            10.0,
        ];
    }

    /**
     * @param  array<string, string>  $one
     * @param  array<string, string>  $other
     */
    #[DataProvider('gaps')]
    public function test_a_round_thing_is_not_its_box(array $one, array $other, float $gap): void
    {
        $sample = new SampleBuild([
            'clearances' => [
                [
                    'ref' => 'c',
                    'name' => 'Pulleys',
                    'between' => [['what' => 'One'] + $one, ['what' => 'Other'] + $other],
                    'evidence' => 'measured',
                ],
            ],
        ]);
        $finding = $sample->finding('M11/c');
        preg_match('/(\d+(?:\.\d+)?)\s?mm/u', str_replace("\u{a0}", ' ', $finding->headline), $m);

        $this->assertEqualsWithDelta(abs($gap), (float) $m[1], 0.05, $finding->headline);
        $this->assertSame($gap > 0 ? Verdict::Holds : Verdict::Fails, $finding->verdict);
        $this->assertEquals($sample->build->clearances, BuildFile::read(BuildFile::write($sample->build))->clearances);
    }

    public function test_a_disc_that_is_carried_sweeps_its_middle(): void
    {
        $rail = Examples::part('rail', 'linear_rail', ['length' => '400 mm', 'block_length' => '60 mm']);
        $file = Examples::file(
            [$rail],
            [
                'axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'rail']],
                'clearances' => [
                    [
                        'ref' => 'c',
                        'name' => 'Pulley and post',
                        'between' => [
                            [
                                'what' => 'Pulley',
                                'x' => '0 mm to 40 mm',
                                'y' => '0 mm to 40 mm',
                                'round' => 'z',
                                'moves' => ['x'],
                            ],
                            ['what' => 'Post', 'x' => '200 mm to 240 mm', 'y' => '45 mm to 85 mm', 'round' => 'z'],
                        ],
                        'evidence' => 'measured',
                    ],
                ],
            ],
        );

        // Level with the post they are 45 − 40 mm apart.
        $this->assertStringContainsString("5\u{a0}mm", (new SampleBuild($file))->finding('M11/c')->headline);
    }

    public function test_a_round_thing_has_to_say_where_it_is(): void
    {
        $this->expectExceptionMessage('say where it is along y');
        new SampleBuild([
            'clearances' => [
                [
                    'ref' => 'c',
                    'name' => 'C',
                    'between' => [['what' => 'A', 'x' => '0 mm to 1 mm', 'round' => 'z'], ['what' => 'B']],
                ],
            ],
        ]);
    }

    /**
     * @return iterable<string, array{array<string, string|bool>, int, Verdict}>
     */
    public static function compressors(): iterable
    {
        $good = ['flow' => '200 L/min', 'pressure' => '8 bar', 'dried' => true];
        yield 'enough' => [$good, 1, Verdict::Holds];
        yield 'two small ones' => [['flow' => '100 L/min'] + $good, 2, Verdict::Holds];
        yield 'little to spare' => [['flow' => '160 L/min'] + $good, 1, Verdict::Tight];
        yield 'not for long' => [['flow' => '120 L/min'] + $good, 1, Verdict::Fails];
        yield 'too little pressure' => [['pressure' => '4 bar'] + $good, 1, Verdict::Fails];
        yield 'wet' => [['dried' => false] + $good, 1, Verdict::Tight];
        yield 'nobody said it is dry' => [['flow' => '200 L/min', 'pressure' => '8 bar'], 1, Verdict::Unproven];
    }

    /**
     * @param  array<string, string|bool>  $compressor
     */
    #[DataProvider('compressors')]
    public function test_a_torch_wants_air(array $compressor, int $pieces, Verdict $verdict): void
    {
        $arc = Examples::part('arc', 'arc_source', ['air_flow' => '150 L/min', 'air_pressure' => '5 bar']);
        $air = Examples::part('air', 'compressor', $compressor);
        $air[1]['quantity'] = $pieces;

        $this->assertSame($verdict, (new SampleBuild(Examples::file([$arc, $air])))->finding('M17/arc')->verdict);
        $this->assertSame(Verdict::Fails, (new SampleBuild(Examples::file([$arc])))->finding('M17/arc')->verdict);
    }

    public function test_two_torches_take_twice_the_air(): void
    {
        $arc = Examples::part('arc', 'arc_source', ['air_flow' => '150 L/min', 'air_pressure' => '5 bar']);
        $air = Examples::part('air', 'compressor', ['flow' => '350 L/min', 'pressure' => '8 bar', 'dried' => true]);
        foreach ([1 => Verdict::Holds, 2 => Verdict::Tight] as $pieces => $verdict) {
            $arc[1]['quantity'] = $pieces;
            $this->assertSame($verdict, (new SampleBuild(Examples::file([$arc, $air])))->finding('M17/arc')->verdict);
        }
    }

    public function test_a_heat_sink_on_a_module_is_judged_by_what_it_takes_away(): void
    {
        $file = static function (?string $sink): array {
            $parts = [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                Examples::part('module', 'switching_module', [
                    'kind' => 'DC solid-state',
                    'rated_current' => '20 A',
                    'on_resistance' => '40 mΩ',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '240 W']),
            ];
            if ($sink !== null) {
                $fitted = Examples::part('sink', 'heat_sink', ['thermal_resistance' => $sink]);
                $fitted[1]['sits_in'] = 'module';
                $parts[] = $fitted;
            }

            return Examples::file($parts, [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'module.in'],
                    ['ref' => 'W2', 'from' => 'module.out', 'to' => 'bed.power'],
                ],
            ]);
        };
        // 10 A through 40 mΩ is 4 W: 40 K allow 10 K/W.
        $this->assertSame(Verdict::Unproven, (new SampleBuild($file(null)))->finding('E16/module')->verdict);
        $this->assertSame(Verdict::Holds, (new SampleBuild($file('8 K/W')))->finding('E16/module')->verdict);
        $this->assertSame(Verdict::Fails, (new SampleBuild($file('12 K/W')))->finding('E16/module')->verdict);
        // In air of 55 °C its case has 25 K left. Of 24 V over 2.44 Ω 9.84 A go through it, 3.87 W: 6.46 K/W.
        $in = static fn (?string $air, string $sink): Finding => (new SampleBuild(
            [
                'zones' => [
                    array_filter(['temperature' => $air, 'evidence' => $air === null ? null : 'measured']) + [
                        'ref' => 'box',
                        'name' => 'Box',
                        'kind' => 'cabinet',
                        'holds' => ['module'],
                    ],
                ],
            ] + $file($sink),
        ))->finding('E16/module');
        $this->assertSame(Verdict::Fails, $in('55 °C', '6.5 K/W')->verdict);
        $this->assertSame(Verdict::Holds, $in('55 °C', '6.4 K/W')->verdict);
        $this->assertSame(Verdict::Fails, $in('80 °C', '0.1 K/W')->verdict);
        $this->assertStringContainsString('as hot as it may be', $in('80 °C', '0.1 K/W')->headline);
        $this->assertContains('hottest air in Box', $in(null, '6.2 K/W')->missing);
        // Of a room nobody has spoken of, 40 °C is taken, as such things are made for.
        $nowhere = ['site' => ['mains_voltage' => '230 V']] + $file('10.3 K/W');
        $this->assertSame(Verdict::Holds, (new SampleBuild($nowhere))->finding('E16/module')->verdict);
        $nowhere = ['site' => ['mains_voltage' => '230 V']] + $file('10.4 K/W');
        $this->assertSame(Verdict::Fails, (new SampleBuild($nowhere))->finding('E16/module')->verdict);
    }

    public function test_pieces_have_names_where_it_matters_which(): void
    {
        $motors = Examples::part('lift', 'stepper_motor', []);
        $motors[1] += ['quantity' => 3, 'pieces' => [['name' => 'left'], ['name' => 'back', 'batch' => 'B']]];
        $board = Examples::part('board', 'controller_board', ['driver_slots' => '3']);
        $build = (new SampleBuild(Examples::file([$motors, $board])))->build;

        $roles = array_column(PortAllocation::of(new Survey($build))->wishes, 'role');
        $this->assertSame(['lift (left)', 'lift (back)', 'lift (3 of 3)'], $roles);
        $this->assertEquals($build->needs, BuildFile::read(BuildFile::write($build))->needs);
    }

    public function test_more_names_than_pieces_or_one_name_twice_is_refused(): void
    {
        foreach ([[['name' => 'a'], ['name' => 'b'], ['name' => 'c']], [['name' => 'a'], ['name' => 'a']]] as $pieces) {
            $rails = Examples::part('rails', 'linear_rail', []);
            $rails[1] += ['quantity' => 2, 'pieces' => $pieces];
            try {
                new SampleBuild(Examples::file([$rails]));
                $this->fail('It was taken.');
            } catch (\Magpie\Core\Format\CannotReadBuildFile $e) {
                $this->assertStringContainsString('/needs/0/pieces', $e->getMessage());
            }
        }
    }

    public function test_a_batch_nobody_told_is_asked_for(): void
    {
        $rails = Examples::part('rails', 'linear_rail', []);
        $rails[1] += ['quantity' => 3, 'pieces' => [['name' => 'a', 'batch' => 'X'], ['name' => 'b', 'batch' => 'X']]];

        $this->assertSame(
            Verdict::Unproven,
            (new SampleBuild(Examples::file([$rails])))->finding('S15/rails')->verdict,
        );
    }

    /**
     * @return iterable<string, array{list<array{string, int}>, Verdict}>
     */
    public static function bodies(): iterable
    {
        // A wall of 40 × 30 cm; each supply covers 20 × 10 cm of it.
        yield 'one' => [[['200 mm', 1]], Verdict::Holds];
        yield 'three are 50 %' => [[['200 mm', 3]], Verdict::Holds];
        yield 'five are 83 %' => [[['200 mm', 5]], Verdict::Tight];
        yield 'six are all of it' => [[['200 mm', 6]], Verdict::Fails];
        yield 'turned it goes in' => [[['390 mm', 1]], Verdict::Holds];
        yield 'longer than any side' => [[['410 mm', 1]], Verdict::Fails];
    }

    /**
     * @param  list<array{string, int}>  $supplies
     */
    #[DataProvider('bodies')]
    public function test_parts_go_into_their_cabinet_and_leave_room(array $supplies, Verdict $verdict): void
    {
        $parts = [Examples::part('box', 'cabinet', ['width' => '300 mm', 'height' => '400 mm', 'depth' => '150 mm'])];
        foreach ($supplies as $i => [$length, $pieces]) {
            $supply = Examples::part("psu{$i}", 'power_supply', [
                'body_length' => $length,
                'body_width' => '100 mm',
                'body_height' => '50 mm',
            ]);
            $supply[1]['quantity'] = $pieces;
            $parts[] = $supply;
        }
        $zone = ['ref' => 'z', 'name' => 'Cabinet', 'kind' => 'cabinet', 'box' => 'box', 'holds' => ['psu0']];
        $sample = new SampleBuild(Examples::file($parts, ['zones' => [$zone]]));

        $this->assertSame($verdict, $sample->finding('M11-box/z')->verdict);
    }

    public function test_a_servo_counts_by_its_own_pulses(): void
    {
        $servo = static fn (array $specs): SampleBuild => new SampleBuild(
            Examples::file(
                [
                    Examples::part('servo', 'servo_motor', $specs),
                    Examples::part('screw', 'drive_screw', ['lead' => '5 mm']),
                    Examples::part('board', 'controller_board', ['step_rate' => '500 kHz']),
                ],
                [
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'drive' => [
                                'motors' => ['servo'],
                                'by' => 'screw',
                                'board' => 'board',
                                'top_speed' => '200 mm/s',
                                'evidence' => 'measured',
                            ],
                        ],
                    ],
                ],
            ),
        );
        // 10,000 pulses a turn on a lead of 5 mm are 2,000 for a millimetre, 400 kHz at 200 mm/s.
        $finding = $servo(['pulses_per_turn' => '10000'])->finding('E10/x');
        $this->assertStringContainsString('400', $finding->headline);
        $this->assertContains('parts/servo/specs/pulses_per_turn', $servo([])->finding('E10/x')->wanted);
    }

    /**
     * Between 1.5 mm at 4000 and 3 mm at 2000 mm/min the chart is straight: 2 mm wants 3333 mm/min.
     *
     * @return iterable<string, array{string, string, string, Verdict}>
     */
    public static function cuts(): iterable
    {
        $chart = '1.5 mm 4000 mm/min 1.2 mm; 3 mm 2000 mm/min';
        yield 'with room' => [$chart, '2 mm', '3800 mm/min', Verdict::Holds];
        yield 'just' => [$chart, '2 mm', '3600 mm/min', Verdict::Tight];
        yield 'too slow' => [$chart, '2 mm', '3300 mm/min', Verdict::Fails];
        yield 'on a row' => [$chart, '3 mm', '2300 mm/min', Verdict::Holds];
        yield 'thicker than the chart' => [$chart, '4 mm', '9000 mm/min', Verdict::Fails];
        yield 'in inches' => ['1/8 in 80 in/min', '3.175 mm', '2500 mm/min', Verdict::Holds];
        yield 'not to be read' => ['fast', '2 mm', '9000 mm/min', Verdict::Unproven];
    }

    #[DataProvider('cuts')]
    public function test_the_torch_s_chart_asks_for_a_feed(
        string $chart,
        string $sheet,
        string $top,
        Verdict $verdict,
    ): void {
        $sample = new SampleBuild(
            Examples::file(
                [Examples::part('arc', 'arc_source', ['cut_chart' => $chart])],
                [
                    'workpieces' => [['ref' => 'p', 'name' => 'Panel', 'height' => $sheet]],
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'drive' => ['top_speed' => '20 m/min', 'evidence' => 'measured'],
                        ],
                        [
                            'ref' => 'y',
                            'name' => 'Y',
                            'along' => 'y',
                            'drive' => ['top_speed' => $top, 'evidence' => 'measured'],
                        ],
                        ['ref' => 'z', 'name' => 'Z', 'along' => 'z'],
                    ],
                ],
            ),
        );

        $this->assertSame($verdict, $sample->finding('M18/p')->verdict, $sample->finding('M18/p')->headline);
    }
}
