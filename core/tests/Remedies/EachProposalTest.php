<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Remedies;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Rules\ContactLoad;
use Magpie\Core\Electrical\Rules\MotorCurrent;
use Magpie\Core\Format\Changes;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Format\Reading;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Library\Entry;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Remedies\RemedySearch;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every kind of fix on the smallest machine that wants it: that it is offered, and that it does what it says. */
final class EachProposalTest extends TestCase
{
    /**
     * @return list<Entry>
     */
    private static function shelf(): array
    {
        static $shelf = null;

        return $shelf ??= array_map(
            LibraryFile::read(...),
            json_decode((string) file_get_contents(dirname(__DIR__, 2).'/reference/starter-library.json'), true),
        );
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, string}> build, finding, what must be among the
     * fixes
     */
    public static function fixes(): iterable
    {
        // With two, the survivor of one that opens would carry 12 A of 10.
        yield 'more contacts' => [self::plugged(), 'E02/W1', '3 contacts per pole at bed, for W1'];
        yield 'a larger gauge' => [
            self::lamp(['conductor' => ['size' => '24 AWG', 'evidence' => 'datasheet']], '4 A'),
            'E03/W1',
            "20 AWG for W1, instead of 24\u{a0}AWG",
        ];
        yield 'a larger section, in millimetres' => [
            self::lamp(['conductor' => ['size' => '0.34 mm²', 'evidence' => 'datasheet']], '4.5 A'),
            'E03/W1',
            "0.75 mm² for W1, instead of 0.34\u{a0}mm²",
        ];
        // 2 A over 1.4 m of 24 AWG there and back drop more than 3 % of 24 V.
        yield 'one larger gauge for all of a way' => [self::fused(['conductor' => ['size' => '24 AWG']]), 'E04/lamp.power', '22 AWG for W2, W1'];
        yield 'one larger section for all of a way' => [
            self::fused(['conductor' => ['size' => '0.2 mm²']]),
            'E04/lamp.power',
            '0.25 mm² for W2, W1',
        ];
        yield 'a second conductor' => [
            self::lamp(['conductor' => ['size' => '24 AWG', 'evidence' => 'datasheet']], '3 A'),
            'E03/W1',
            'A second conductor in parallel for W1, joined at both ends',
        ];
        yield 'ferrules' => [
            self::lamp(['ends' => [['termination' => 'tinned'], ['termination' => 'crimp']]]),
            'E20/W1',
            'Ferrules on W1',
        ];
        yield 'strain relief where it moves' => [
            self::lamp([
                'route' => 'flexing',
                'conductor' => ['stranding' => 'fine'],
                'ends' => [['strain_relief' => false], ['strain_relief' => true]],
            ]),
            'E19/W1',
            'Strain relief at both ends of W1',
        ];
        yield 'fine strands where it moves' => [
            self::lamp([
                'route' => 'flexing',
                'conductor' => ['stranding' => 'solid'],
                'ends' => [['strain_relief' => true], ['strain_relief' => true]],
            ]),
            'E19/W1',
            'Fine-stranded conductors for W1',
        ];
        yield 'a lower current' => [
            MotorCurrent::axis(['set_current' => '2.4 A']),
            'E08/drv',
            "Set drv to 1.87\u{a0}A",
        ];
        yield 'a heat sink' => [
            MotorCurrent::axis(['set_current' => '1.5 A', 'heat_sink' => false]),
            'E08/drv',
            'A heat sink on drv',
        ];
        yield 'another plastic' => [
            Examples::file([
                Examples::part('p', 'printed_part', ['material' => 'PLA', 'service_temperature' => '65 °C']),
            ]),
            'M13/p',
            'p printed in ASA',
        ];
        yield 'more walls' => [
            Examples::file([
                Examples::part('p', 'printed_part', [
                    'material' => 'ASA',
                    'walls' => '2',
                    'infill' => '10 %',
                    'top_bottom_layers' => '3',
                ]),
            ]),
            'M13-recipe/p',
            'Printed with 4 walls, 40 % infill and 5 layers',
        ];
        yield 'a gentler move' => [
            SampleAxis::file(['mass' => '9 kg', 'top_speed' => '150 mm/s']),
            'M03/x',
            "Accelerate X at 1500\u{a0}mm/s²",
        ];
        yield 'a lower top speed' => [
            SampleAxis::file(['mass' => '6 kg', 'top_speed' => '900 mm/s']),
            'M03/x',
            "Limit X to 315\u{a0}mm/s",
        ];
        yield 'slower for the board' => [
            SampleAxis::file(['top_speed' => '1400 mm/s']),
            'E10/x',
            "Limit X to 910\u{a0}mm/s",
        ];
        yield 'geared down for the inertia' => [
            SampleAxis::file(['mass' => '4 kg', 'top_speed' => '20 mm/s', 'acceleration' => '100 mm/s²']),
            'M04/x',
            'Gear X down 2:1',
        ];
        yield 'a better held screw' => [
            self::screw('fixed-free', '90 mm/s'),
            'M05/x',
            'Ends of its screw held fixed-supported',
        ];
        yield 'a slower screw' => [self::screw('fixed-fixed', '600 mm/s'), 'M05/x', "Limit X to 300\u{a0}mm/s"];
        yield 'a brake' => [self::lifted(), 'M03-drop/z', 'A motor with a brake for Z'];
        yield 'another block' => [self::guided(), 'M07/x', '3 blocks on each rail of X'];
        yield 'a gentler push on a beam' => [
            Examples::file(
                [Examples::part('beam', 'extrusion', ['length' => '500 mm', 'second_moment' => '7300 mm⁴'])],
                [
                    'brief' => ['accuracy' => '0.3 mm'],
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'drive' => [
                                'beam' => 'beam',
                                'force' => '0 N',
                                'mass' => '20 kg',
                                'acceleration' => '4 m/s²',
                                'evidence' => 'measured',
                            ],
                        ],
                    ],
                ],
            ),
            'M12/x',
            "Accelerate X at 1\u{a0}m/s²",
        ];
        yield 'what was read back, set right' => [
            SampleAxis::file(
                [],
                [
                    'settings' => [
                        ['ref' => 'S1', 'kind' => 'setting', 'about' => 'axis.x.steps_per_mm', 'value' => '160'],
                        ['ref' => 'S2', 'kind' => 'setting', 'about' => 'axis.x.direction', 'value' => 'tried by hand'],
                    ],
                ],
            ),
            'E21/x',
            'Plan to set it to 80, and read it back',
        ];
        yield 'a fan moved to a pin of its own' => [self::fans(), 'E12-fan/hot', 'hot on fan2'];
        yield 'a module between board and bed' => [self::overloaded(), 'E07/board.heater0', 'between board and bed'];
        yield 'a wider chain' => [self::chained(), 'E19-chain/chain', 'for chain'];
        yield 'a board beside the one that is full' => [
            Examples::file([
                Examples::part('board', 'controller_board', ['driver_slots' => '1']),
                Examples::part('x', 'stepper_motor', []),
                Examples::part('e', 'stepper_motor', []),
            ]),
            'E12/board',
            'Tool-head board, differential bus beside board',
        ];
        yield 'a stop where there is none' => [
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                    Examples::part('bed', 'heater', ['rated_power' => '96 W', 'rated_voltage' => '24 V']),
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']]],
            ),
            'E17/stops',
            'Stop button, mushroom, latching behind psu',
        ];
        yield 'spares' => [Examples::file([self::screws()]), 'S07/s', 'Order a tenth more than is needed'];
    }

    /**
     * @param  array<string, mixed>  $file
     */
    #[DataProvider('fixes')]
    public function test_it_is_offered_and_does_what_it_says(array $file, string $key, string $says): void
    {
        $build = (new SampleBuild($file))->build;
        $inspection = Rules::inspector()->inspect($build);
        $finding = null;
        foreach ($inspection->findings as $one) {
            $finding = $one->key() === $key ? $one : $finding;
        }
        self::assertNotNull($finding, "There is no {$key}.");
        self::assertLessThanOrEqual(
            Verdict::Tight->rank(),
            $finding->verdict->rank(),
            "{$key} is {$finding->verdict->value}: {$finding->headline}",
        );
        $remedies = (new RemedySearch(Standing::of(Rules::inspector(), $build), self::shelf()))->for($finding)[
            'remedies'
        ];
        $found = array_values(array_filter($remedies, static fn (array $r): bool => str_contains($r['says'], $says)));

        self::assertNotSame([], $found, "Offered: \n".implode("\n", array_column($remedies, 'says')));
        $after = Rules::inspector()->find(Reading::of($build)->changed($found[0]['changes']), $key);
        $fitted = Remedy::toBeFitted($found[0]['changes']);
        // An output whose load was taken off it has nothing left to be judged.
        $then = $after?->onceFitted($fitted) ?? Verdict::Holds;
        self::assertSame($found[0]['to'], $then->value);
        self::assertGreaterThan($finding->verdict->rank(), $then->rank());
        self::assertSame($fitted !== [], $found[0]['to_be_fitted']);
        if (array_intersect($fitted, array_column($after->inputs ?? [], 'where')) !== []) {
            self::assertSame(Verdict::Unproven, $after?->verdict, 'Nothing holds on what is only meant to be fitted.');
        }
    }

    public function test_changes_that_several_fixes_share_are_made_once(): void
    {
        $part = ['section' => 'parts', 'create' => ['ref' => 'L-fuse', 'family' => 'fuse', 'name' => 'Fuse']];
        $one = ['section' => 'needs', 'create' => ['ref' => 'F1']];
        $other = ['section' => 'needs', 'create' => ['ref' => 'F2']];

        self::assertSame([$part, $one, $other], Changes::merged([[$part, $one], [$part, $other]]));
        self::assertSame([], Changes::merged([]));
    }

    /**
     * @return array<string, mixed>
     */
    private static function plugged(): array
    {
        $file = ContactLoad::bedOn(1);
        $file['leads'][0]['ends'][0]['contact'] = null;

        return $file;
    }

    /**
     * @param  array<string, mixed>  $lead
     * @return array<string, mixed>
     */
    private static function fused(array $lead): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '10 A',
                    'cooling' => 'fan',
                ]),
                Examples::part('fuse', 'fuse', ['rated_current' => '3 A']),
                Examples::part('lamp', 'lamp', ['rated_voltage' => '24 V', 'rated_current' => '2 A']),
            ],
            [
                'leads' => [
                    $lead + ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'fuse.in', 'route' => 'fixed', 'length' => '1.4 m'],
                    $lead + ['ref' => 'W2', 'from' => 'fuse.out', 'to' => 'lamp.power', 'route' => 'fixed', 'length' => '1.4 m'],
                ],
            ],
        );
    }

    /**
     * @param  array<string, mixed>  $lead
     * @return array<string, mixed>
     */
    private static function lamp(array $lead, string $amps = '1 A'): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '10 A',
                    'cooling' => 'fan',
                ]),
                Examples::part('lamp', 'lamp', ['rated_voltage' => '24 V', 'rated_current' => $amps]),
            ],
            [
                'leads' => [
                    $lead + [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'lamp.power',
                        'route' => 'fixed',
                        'length' => '0.5 m',
                    ],
                ],
            ],
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function screw(string $support, string $speed): array
    {
        return Examples::file(
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
                            'mass' => '5 kg',
                            'force' => '0 N',
                            'friction' => '20 N',
                            'incline' => '0 °',
                            'support' => $support,
                            'unsupported' => '800 mm',
                            'evidence' => 'measured',
                        ],
                    ],
                ],
            ],
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function lifted(): array
    {
        return Examples::file(
            [
                Examples::part('motor', 'stepper_motor', ['holding_torque' => '1 N m', 'brake' => false]),
                Examples::part('screw', 'drive_screw', ['lead' => '10 mm']),
            ],
            [
                'axes' => [
                    [
                        'ref' => 'z',
                        'name' => 'Z',
                        'along' => 'z',
                        'drive' => [
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
    }

    /**
     * @return array<string, mixed>
     */
    private static function guided(): array
    {
        return Examples::file(
            [
                Examples::part('rail', 'linear_rail', [
                    'length' => '900 mm',
                    'block_length' => '50 mm',
                    'static_load' => '420 N',
                    'dynamic_load' => '900 N',
                ]),
            ],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'rail' => 'rail',
                        'blocks' => 2,
                        'block_pitch' => '100 mm',
                        'drive' => [
                            'mass' => '12 kg',
                            'force' => '100 N',
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
    }

    /**
     * @return array<string, mixed>
     */
    private static function fans(): array
    {
        [$board, $need] = Examples::part('board', 'controller_board', []);
        $board['ports'] = array_map(
            static fn (array $p): array => [
                'name' => $p[0],
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => Examples::sheet(['use' => 'fan', 'pin' => $p[1], 'control' => 'speed']),
            ],
            [['fan0', 'P1'], ['fan1', 'P1'], ['fan2', 'P2']],
        );

        return Examples::file(
            [
                [$board, $need],
                Examples::part('hot', 'fan', ['job' => 'hot end']),
                Examples::part('part', 'fan', ['job' => 'part']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'board.fan0', 'to' => 'hot.power'],
                    ['ref' => 'W2', 'from' => 'board.fan1', 'to' => 'part.power'],
                ],
            ],
        );
    }

    /**
     * A bed of 240 W on a board output for 6 A.
     *
     * @return array<string, mixed>
     */
    private static function overloaded(): array
    {
        [$board, $need] = Examples::part('board', 'controller_board', [
            'own_current' => '0.2 A',
            'input_terminal_rating' => '30 A',
            'min_voltage' => '12 V',
            'max_voltage' => '30 V',
        ]);
        $board['ports'] = [
            [
                'name' => 'heater0',
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => Examples::sheet(['rated_current' => '6 A', 'use' => 'heater']),
            ],
        ];

        return Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '20 A',
                    'cooling' => 'fan',
                ]),
                [$board, $need],
                Examples::part('bed', 'heater', [
                    'rated_voltage' => '24 V',
                    'rated_power' => '240 W',
                    'min_voltage' => '20 V',
                    'max_voltage' => '26 V',
                ]),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'board.power',
                        'route' => 'fixed',
                        'length' => '0.5 m',
                        'conductor' => ['size' => '4 mm²', 'evidence' => 'datasheet', 'stranding' => 'fine'],
                    ],
                    [
                        'ref' => 'W2',
                        'from' => 'board.heater0',
                        'to' => 'bed.power',
                        'route' => 'fixed',
                        'length' => '0.8 m',
                        'conductor' => ['size' => '4 mm²', 'evidence' => 'datasheet', 'stranding' => 'fine'],
                    ],
                ],
            ],
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function chained(): array
    {
        return Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                Examples::part('fan', 'fan', ['rated_current' => '0.1 A']),
                Examples::part('chain', 'cable_chain', [
                    'inner_width' => '10 mm',
                    'inner_height' => '8 mm',
                    'bend_radius' => '18 mm',
                    'length' => '0.5 m',
                ]),
            ],
            [
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'psu.out',
                        'to' => 'fan.power',
                        'length' => '2 m',
                        'chain' => 'chain',
                        'diameter' => '3.6 mm',
                    ],
                ],
            ],
        );
    }

    /**
     * @return array{array<string, mixed>, array<string, mixed>}
     */
    private static function screws(): array
    {
        [$part, $need] = Examples::part('s', 'screw', ['thread' => 'M3', 'length' => '8 mm']);

        return [$part, ['quantity' => 40] + $need];
    }
}
