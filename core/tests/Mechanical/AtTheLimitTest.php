<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each check just under, at and just over its limits. The limits are those of the handbook, named beside each. */
final class AtTheLimitTest extends TestCase
{
    /**
     * @return iterable<string, array{array<string, mixed>, string, Verdict}>
     */
    public static function limits(): iterable
    {
        // E10: 80 kHz of 100 kHz is 80 % of what the board sends; 80 steps a millimetre.
        foreach (
            [
                '999 mm/s' => Verdict::Holds,
                '1001 mm/s' => Verdict::Tight,
                '1249 mm/s' => Verdict::Tight,
                '1251 mm/s' => Verdict::Fails,
            ] as $speed => $verdict
        ) {
            yield "step rate at {$speed}" => [SampleAxis::file(['top_speed' => $speed]), 'E10/x', $verdict];
        }
        // E10: a step of 12.5 µm against the accuracy wanted.
        foreach (['0.0124 mm' => Verdict::Fails, '0.0126 mm' => Verdict::Holds] as $accuracy => $verdict) {
            yield "resolution against {$accuracy}" => [
                SampleAxis::file([], ['brief' => ['accuracy' => $accuracy]]),
                'E10/x',
                $verdict,
            ];
        }
        // M07: static safety 3 holds, 1.5 is tight. One rail pair, 100 N on each of four blocks.
        foreach (
            ['301 N' => Verdict::Holds, '299 N' => Verdict::Tight, '151 N' => Verdict::Tight, '149 N' => Verdict::Fails] as $static => $verdict
        ) {
            [$part, $need] = Examples::part('rail', 'linear_rail', [
                'static_load' => $static,
                'dynamic_load' => '5000 N',
            ]);
            yield "blocks of {$static}" => [
                Examples::file(
                    [[$part, ['quantity' => 2] + $need]],
                    [
                        'axes' => [
                            [
                                'ref' => 'x',
                                'name' => 'X',
                                'along' => 'x',
                                'rail' => 'rail',
                                'blocks' => 2,
                                'drive' => [
                                    'mass' => 400 / 9.80665.' kg',
                                    'force' => '0 N',
                                    'acceleration' => '1 mm/s²',
                                    'incline' => '0 °',
                                    'lever' => '1 mm',
                                    'spread' => '100 mm',
                                    'evidence' => 'measured',
                                ],
                            ],
                        ],
                    ],
                ),
                'M07/x',
                $verdict,
            ];
        }
        // M12: half of the accuracy holds, all of it is tight. 100 N over 500 mm on 7300 mm⁴ bend 0.5097 mm.
        foreach (
            [
                '1.03 mm' => Verdict::Holds,
                '1.01 mm' => Verdict::Tight,
                '0.52 mm' => Verdict::Tight,
                '0.5 mm' => Verdict::Fails,
            ] as $accuracy => $verdict
        ) {
            yield "bending against {$accuracy}" => [
                Examples::file(
                    [Examples::part('beam', 'extrusion', ['length' => '500 mm', 'second_moment' => '7300 mm⁴'])],
                    [
                        'brief' => ['accuracy' => $accuracy],
                        'axes' => [
                            [
                                'ref' => 'x',
                                'name' => 'X',
                                'along' => 'x',
                                'drive' => ['beam' => 'beam', 'force' => '100 N', 'evidence' => 'measured'],
                            ],
                        ],
                    ],
                ),
                'M12/x',
                $verdict,
            ];
        }
        // M09: a coupling at half its torque holds, at all of it is tight; a play of 0.05 mm is allowed.
        foreach (
            [
                '2.49 N m' => Verdict::Holds,
                '2.51 N m' => Verdict::Tight,
                '4.99 N m' => Verdict::Tight,
                '5.01 N m' => Verdict::Fails,
            ] as $torque => $verdict
        ) {
            yield "a coupling for {$torque}" => [
                self::meet(
                    Examples::part('m', 'stepper_motor', ['shaft_diameter' => '8 mm', 'holding_torque' => $torque]),
                    Examples::part('c', 'coupling', [
                        'bore_a' => '8 mm',
                        'bore_b' => '10 mm',
                        'rated_torque' => '5 N m',
                    ]),
                ),
                'M09/j',
                $verdict,
            ];
        }
        foreach (
            ['5.04 mm' => Verdict::Holds, '5.06 mm' => Verdict::Fails, '4.94 mm' => Verdict::Fails] as $bore => $verdict
        ) {
            yield "a shaft of 5 mm in {$bore}" => [
                self::meet(
                    Examples::part('m', 'stepper_motor', ['shaft_diameter' => '5 mm']),
                    Examples::part('p', 'pulley', ['bore' => $bore]),
                ),
                'M09/j',
                $verdict,
            ];
        }
        // M09-grip: every grip on every form of shaft (common practice, no source).
        foreach (
            [
                'clamp' => [
                    'round' => Verdict::Holds,
                    'flat' => Verdict::Holds,
                    'two flats' => Verdict::Tight,
                    'keyed' => Verdict::Holds,
                ],
                'set screws' => [
                    'round' => Verdict::Tight,
                    'flat' => Verdict::Holds,
                    'two flats' => Verdict::Holds,
                    'keyed' => Verdict::Tight,
                ],
                'keyway' => [
                    'round' => Verdict::Fails,
                    'flat' => Verdict::Fails,
                    'two flats' => Verdict::Fails,
                    'keyed' => Verdict::Holds,
                ],
            ] as $grip => $forms
        ) {
            foreach ($forms as $form => $verdict) {
                yield "{$grip} on a {$form} shaft" => [
                    self::meet(
                        Examples::part('m', 'servo_motor', ['shaft_form' => $form]),
                        Examples::part('c', 'coupling', ['grip' => $grip]),
                    ),
                    'M09-grip/j',
                    $verdict,
                ];
            }
        }
        yield 'a coupling that does not say how it holds' => [
            self::meet(
                Examples::part('m', 'servo_motor', ['shaft_form' => 'flat']),
                Examples::part('c', 'coupling', []),
            ),
            'M09-grip/j',
            Verdict::Unproven,
        ];
        // M09-cutout: 10 mm on either side of 60 mm; what a listing says holds nothing (30 mm listed, 32 mm found).
        foreach (
            [
                ['40 mm', 'measured', Verdict::Holds],
                ['40.2 mm', 'measured', Verdict::Tight],
                ['59.9 mm', 'measured', Verdict::Tight],
                ['60 mm', 'measured', Verdict::Fails],
                ['30 mm', 'listing', Verdict::Unproven],
                ['30 mm', 'datasheet', Verdict::Unproven],
                ['61 mm', 'listing', Verdict::Fails],
            ] as [$opening, $evidence, $verdict]
        ) {
            [$inlet, $need] = Examples::part('i', 'mains_inlet', []);
            yield "an opening of {$opening}, {$evidence}" => [
                self::meet(
                    [['specs' => ['cut_out' => ['value' => $opening, 'evidence' => $evidence]]] + $inlet, $need],
                    Examples::part('p', 'panel', ['length' => '200 mm', 'width' => '60 mm']),
                ),
                'M09-cutout/j',
                $verdict,
            ];
        }
        // M05-preload: play against half and all of 50 µm; turning against a tenth and a fifth of 1 N m.
        foreach (
            [
                ['25 µm', '0.1 N m', Verdict::Holds],
                ['26 µm', '0.1 N m', Verdict::Tight],
                ['51 µm', '0.1 N m', Verdict::Fails],
                ['25 µm', '0.11 N m', Verdict::Tight],
                ['25 µm', '0.21 N m', Verdict::Fails],
                ['25 µm', null, Verdict::Unproven],
                [null, '0.1 N m', Verdict::Unproven],
                [null, null, Verdict::Unproven],
                [null, '0.21 N m', Verdict::Fails],
            ] as [$play, $drag, $verdict]
        ) {
            yield 'a play of '.($play ?? 'nothing known').', turning at '.($drag ?? 'nothing known') => [
                self::screw($play, $drag, 'measured'),
                'M05-preload/x',
                $verdict,
            ];
        }
        yield 'a play the catalogue promises' => [
            self::screw('5 µm', '0.05 N m', 'datasheet'),
            'M05-preload/x',
            Verdict::Unproven,
        ];
        // M13-recipe: four walls, 40 %, five layers; two walls with less than a fifth come apart.
        foreach (
            [
                ['4', '40 %', '5', Verdict::Holds],
                ['3', '40 %', '5', Verdict::Tight],
                ['4', '39 %', '5', Verdict::Tight],
                ['4', '40 %', '4', Verdict::Tight],
                ['2', '21 %', '5', Verdict::Tight],
                ['2', '19 %', '5', Verdict::Fails],
            ] as [$walls, $infill, $layers, $verdict]
        ) {
            yield "{$walls} walls, {$infill}, {$layers} layers" => [
                Examples::file([
                    Examples::part('p', 'printed_part', [
                        'material' => 'ASA',
                        'walls' => $walls,
                        'infill' => $infill,
                        'top_bottom_layers' => $layers,
                    ]),
                ]),
                'M13-recipe/p',
                $verdict,
            ];
        }
        // M14: 990 g with a tenth more are 1089 g; reels of 1 kg.
        foreach (
            ['900 g' => Verdict::Tight, '860 g' => Verdict::Holds, '910 g' => Verdict::Fails] as $mass => $verdict
        ) {
            yield "{$mass} off one reel" => [
                Examples::file([
                    Examples::part('r', 'filament', ['material' => 'ASA', 'mass' => '1 kg']),
                    Examples::part('p', 'printed_part', ['material' => 'ASA', 'mass' => $mass]),
                ]),
                'M14/r',
                $verdict,
            ];
        }
        // E19-chain: 60 % of the opening, and ten diameters of bend (7.5 is the least).
        foreach (
            [
                '6.1 mm' => Verdict::Holds,
                '6.3 mm' => Verdict::Tight,
                '8.2 mm' => Verdict::Tight,
                '8.3 mm' => Verdict::Fails,
            ] as $diameter => $verdict
        ) {
            yield "a lead of {$diameter} in a bend of 62 mm" => [
                self::chain($diameter, '62 mm'),
                'E19-chain/chain',
                $verdict,
            ];
        }
        // M10-rust: plain steel above 60 %.
        foreach (['60 %' => Verdict::Holds, '61 %' => Verdict::Tight] as $damp => $verdict) {
            yield "plain screws at {$damp}" => [
                Examples::file(
                    [Examples::part('s', 'screw', ['thread' => 'M5', 'grade' => '8.8'])],
                    ['site' => ['humidity' => $damp]],
                ),
                'M10-rust/humidity',
                $verdict,
            ];
        }
        yield 'stainless at 80 %' => [
            Examples::file(
                [Examples::part('s', 'screw', ['thread' => 'M5', 'grade' => 'A2-70'])],
                ['site' => ['humidity' => '80 %']],
            ),
            'M10-rust/humidity',
            Verdict::Holds,
        ];
        // M06: six teeth in mesh; a grub screw wants a flat.
        foreach (['12' => Verdict::Holds, '11' => Verdict::Tight] as $teeth => $verdict) {
            yield "a pulley of {$teeth} teeth" => [self::belt(['teeth' => (string) $teeth], 'flat'), 'M06/x', $verdict];
        }
        yield 'a grub screw on a round shaft' => [self::belt([], 'round'), 'M06/x', Verdict::Tight];
        yield 'a belt wider than its pulley' => [self::belt(['width' => '5 mm'], 'flat'), 'M06/x', Verdict::Fails];
        // M08: the collet, and a cutter that may not turn as slowly as the spindle can.
        foreach (
            [
                ['7 mm', '24000 rpm', Verdict::Holds],
                ['7.1 mm', '24000 rpm', Verdict::Fails],
                ['6 mm', '11000 rpm', Verdict::Tight],
                ['6 mm', '2900 rpm', Verdict::Danger],
            ] as [$shank, $most, $verdict]
        ) {
            yield "a shank of {$shank} good for {$most}" => [
                Examples::file([
                    Examples::part('c', 'cutter', [
                        'shank' => $shank,
                        'top_speed' => $most,
                        'flutes' => '2',
                        'diameter' => '6 mm',
                    ]),
                    Examples::part('s', 'spindle', [
                        'collet_largest' => '7 mm',
                        'lowest_speed' => '3000 rpm',
                        'top_speed' => '12000 rpm',
                        'rated_power' => '400 W',
                    ]),
                ]),
                'M08/c',
                $verdict,
            ];
        }
        // M08-flow: nine tenths of what it melts.
        foreach (
            ['13.3 mm³/s' => Verdict::Tight, '13.4 mm³/s' => Verdict::Holds, '11.9 mm³/s' => Verdict::Fails] as $flow => $verdict
        ) {
            yield "12 mm³/s out of {$flow}" => [
                Examples::file(
                    [Examples::part('h', 'hot_end', ['flow' => $flow, 'nozzle' => '0.4 mm'])],
                    ['brief' => ['flow' => '12 mm³/s']],
                ),
                'M08-flow/h',
                $verdict,
            ];
        }
        // M10: a countersunk head takes no washer.
        foreach (['cap' => Verdict::Holds, 'countersunk' => Verdict::Fails] as $head => $verdict) {
            yield "a {$head} head on a washer" => [
                Examples::file(
                    [
                        Examples::part('m', 'plate', []),
                        Examples::part('p', 'plate', []),
                        Examples::part('s', 'screw', ['thread' => 'M5', 'length' => '25 mm', 'head' => $head]),
                    ],
                    [
                        'mates' => [
                            [
                                'ref' => 'j',
                                'kind' => 'joint',
                                'between' => ['m', 'p'],
                                'screws' => [
                                    [
                                        'screw' => 's',
                                        'count' => 1,
                                        'clamped' => ['10 mm'],
                                        'washers' => ['1 mm'],
                                        'into' => 'tapped',
                                        'material' => 'aluminium',
                                        'depth' => '16 mm',
                                        'evidence' => 'measured',
                                    ],
                                ],
                            ],
                        ],
                    ],
                ),
                'M10/j/0',
                $verdict,
            ];
        }
        // M03: a load that was read settles it, open loop at half, closed loop at 77 %.
        foreach (
            [
                ['49 %', false, Verdict::Holds],
                ['60 %', false, Verdict::Tight],
                ['70 %', false, Verdict::Fails],
                ['75 %', true, Verdict::Holds],
                ['90 %', true, Verdict::Fails],
            ] as [$read, $closed, $verdict]
        ) {
            yield "{$read} read, ".($closed ? 'closed' : 'open').' loop' => [
                SampleAxis::file(['mass' => '200 kg', 'measured_load' => $read, 'closed_loop' => $closed]),
                'M03/x',
                $verdict,
            ];
        }
        yield 'an axis without a motor' => [
            Examples::file([], ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x']]]),
            'M03/x',
            Verdict::Unproven,
        ];
        yield 'a rail shorter than its blocks' => [
            Examples::file(
                [Examples::part('rail', 'linear_rail', ['length' => '100 mm', 'block_length' => '60 mm'])],
                [
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'rail' => 'rail',
                            'blocks' => 2,
                            'block_pitch' => '80 mm',
                        ],
                    ],
                ],
            ),
            'M01/x',
            Verdict::Fails,
        ];
        yield 'PETG on a smooth sheet' => [
            Examples::file([
                Examples::part('s', 'build_sheet', ['surface' => 'smooth']),
                Examples::part('f', 'filament', ['material' => 'PETG']),
            ]),
            'M15-surface/s',
            Verdict::Tight,
        ];
        yield 'PETG on a textured sheet' => [
            Examples::file([
                Examples::part('s', 'build_sheet', ['surface' => 'textured']),
                Examples::part('f', 'filament', ['material' => 'PETG']),
            ]),
            'M15-surface/s',
            Verdict::Holds,
        ];
    }

    /**
     * @param  array<string, mixed>  $file
     */
    #[DataProvider('limits')]
    public function test_a_check_turns_where_its_limit_is(array $file, string $key, Verdict $verdict): void
    {
        $finding = (new SampleBuild($file))->finding($key);

        self::assertSame($verdict, $finding->verdict, $finding->headline);
    }

    public function test_a_rail_shorter_than_its_blocks_says_by_how_much(): void
    {
        $file = Examples::file(
            [Examples::part('rail', 'linear_rail', ['length' => '100 mm', 'block_length' => '60 mm'])],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'rail' => 'rail',
                        'blocks' => 2,
                        'block_pitch' => '80 mm',
                    ],
                ],
            ],
        );

        self::assertStringContainsString(
            "40\u{a0}mm more than there is",
            (new SampleBuild($file))->finding('M01/x')->headline,
        );
        self::assertSame(['a motor for X'], (new SampleBuild($file))->finding('M03/x')->missing);
    }

    public function test_a_lead_shorter_than_its_chain_is_told(): void
    {
        $file = self::chain('6 mm', '62 mm');
        $file['leads'][0]['length'] = '0.55 m';

        self::assertSame(Verdict::Fails, (new SampleBuild($file))->finding('E19-chain/chain')->verdict);
        self::assertStringContainsString(
            'does not reach both ends',
            (new SampleBuild($file))->finding('E19-chain/chain')->headline,
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function screw(?string $play, ?string $drag, string $evidence): array
    {
        [$screw, $need] = Examples::part('s', 'drive_screw', ['kind' => 'ball screw']);
        foreach (array_filter(['end_play' => $play, 'turning_torque' => $drag]) as $key => $value) {
            $screw['specs'][$key] = ['value' => $value, 'evidence' => $evidence];
        }

        return Examples::file(
            [[$screw, $need], Examples::part('m', 'stepper_motor', ['holding_torque' => '1 N m'])],
            [
                'brief' => ['accuracy' => '50 µm'],
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'drive' => ['motors' => ['m'], 'by' => 's', 'evidence' => 'measured'],
                    ],
                ],
            ],
        );
    }

    /**
     * @param  array{array<string, mixed>, array<string, mixed>}  $one
     * @param  array{array<string, mixed>, array<string, mixed>}  $other
     * @return array<string, mixed>
     */
    private static function meet(array $one, array $other): array
    {
        return Examples::file(
            [$one, $other],
            ['mates' => [['ref' => 'j', 'kind' => 'meets', 'between' => [$one[0]['ref'], $other[0]['ref']]]]],
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function chain(string $diameter, string $radius): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('fan', 'fan', ['rated_current' => '0.1 A']),
                Examples::part('chain', 'cable_chain', [
                    'inner_width' => '30 mm',
                    'inner_height' => '20 mm',
                    'bend_radius' => $radius,
                    'length' => '0.6 m',
                ]),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'fan.power',
                        'length' => '1 m',
                        'chain' => 'chain',
                        'diameter' => $diameter,
                    ],
                ],
            ],
        );
    }

    /**
     * @param  array<string, string>  $pulley
     * @return array<string, mixed>
     */
    private static function belt(array $pulley, string $shaft): array
    {
        return Examples::file(
            [
                Examples::part(
                    'pulley',
                    'pulley',
                    $pulley + [
                        'teeth' => '20',
                        'pitch' => '2 mm',
                        'bore' => '5 mm',
                        'width' => '7 mm',
                        'grub_screws' => '2',
                    ],
                ),
                Examples::part('belt', 'belt', ['pitch' => '2 mm', 'width' => '6 mm']),
                Examples::part('motor', 'stepper_motor', ['shaft_form' => $shaft, 'shaft_diameter' => '5 mm']),
            ],
            [
                'axes' => [
                    ['ref' => 'x', 'name' => 'X', 'along' => 'x', 'drive' => ['motors' => ['motor'], 'by' => 'pulley']],
                ],
            ],
        );
    }
}
