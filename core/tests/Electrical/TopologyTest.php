<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Joint;
use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** How circuits hang together, and that a network without an answer gives none. */
final class TopologyTest extends TestCase
{
    /**
     * Wall → 24 V supply → 5 V converter → host, with a fan beside the converter.
     *
     * @param  list<array<string, mixed>>  $more
     */
    private static function chain(array $more = []): SampleBuild
    {
        return new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', ['rated_current' => '10 A', 'fuse_rating' => '6 A']),
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => '24 V',
                        'rated_current' => '5 A',
                        'efficiency' => '80 %',
                        'power_factor' => '0.5',
                    ]),
                    Examples::part('conv', 'dc_converter', [
                        'output_voltage' => '5 V',
                        'rated_current' => '3 A',
                        'efficiency' => '75 %',
                    ]),
                    Examples::part('host', 'host_computer', ['rated_current' => '2.4 A']),
                    Examples::part('fan', 'fan', ['rated_current' => '0.5 A']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W0', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                        ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'conv.in'],
                        ['ref' => 'W2', 'from' => 'conv.out', 'to' => 'host.power'],
                        ['ref' => 'W3', 'from' => 'psu.out', 'to' => 'fan.power'],
                        ...$more,
                    ],
                ],
            ),
        );
    }

    public function test_a_chain_of_supplies_is_worked_out_from_the_load_back_to_the_wall(): void
    {
        // 5 V × 2.4 A = 12 W; over 75 %: 16 W, 0.6667 A of 24 V; with the fan 1.1667 A, 28 W; over 80 % and 0.5: 70 VA,
        // 0.3043 A of 230 V.
        $flow = (new Circuits(self::chain()->build))->flows()[0];

        self::assertEqualsWithDelta(2.4, $flow->current('W2')?->in('A'), 1e-6);
        self::assertEqualsWithDelta(16 / 24, $flow->current('W1')?->in('A'), 1e-6);
        self::assertEqualsWithDelta(0.5, $flow->current('W3')?->in('A'), 1e-6);
        self::assertEqualsWithDelta(70 / 230, $flow->current('W0')?->in('A'), 1e-6);
    }

    public function test_the_way_back_leads_through_parts_and_leads_to_the_source(): void
    {
        $build = new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                    Examples::part('fuse', 'fuse', ['rated_current' => '5 A']),
                    Examples::part('module', 'switching_module', []),
                    Examples::part('bed', 'heater', []),
                ],
                [
                    'leads' => [
                        ['ref' => 'A', 'from' => 'psu.out', 'to' => 'fuse.in'],
                        ['ref' => 'B', 'from' => 'fuse.out', 'to' => 'module.in'],
                        ['ref' => 'C', 'from' => 'module.out', 'to' => 'bed.power'],
                    ],
                ],
            ),
        );
        $topology = (new Circuits($build->build))->topology;
        $way = array_map(
            static fn (Joint $j): string => $j->lead ?? 'part',
            $topology->wayBack($topology->node('bed.power')),
        );

        self::assertSame(['C', 'part', 'B', 'part', 'A'], $way);
        self::assertSame('psu', $topology->needs[(int) $topology->sourceOf($topology->node('bed.power'))]);
        self::assertSame($topology->node('module.out'), $topology->nearEnd('C'));
    }

    public function test_a_lead_drawn_from_load_to_source_carries_the_same(): void
    {
        $drawn = static fn (string $from, string $to): ?float => (new Circuits(
            (new SampleBuild(
                Examples::file(
                    [
                        Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                        Examples::part('bed', 'heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V']),
                    ],
                    ['leads' => [['ref' => 'A', 'from' => $from, 'to' => $to]]],
                ),
            ))->build,
        ))
            ->flows()[0]
            ->current('A')
            ?->in('A');

        self::assertEqualsWithDelta(12.0, $drawn('psu.out', 'bed.power'), 1e-4);
        self::assertEqualsWithDelta(12.0, $drawn('bed.power', 'psu.out'), 1e-4);
    }

    public function test_a_supply_that_feeds_itself_is_named_and_never_solved(): void
    {
        $build = new SampleBuild(
            Examples::file(
                [
                    Examples::part('one', 'dc_converter', [
                        'output_voltage' => '12 V',
                        'rated_current' => '3 A',
                        'efficiency' => '80 %',
                    ]),
                    Examples::part('two', 'dc_converter', [
                        'output_voltage' => '24 V',
                        'rated_current' => '3 A',
                        'efficiency' => '80 %',
                    ]),
                ],
                [
                    'leads' => [
                        ['ref' => 'A', 'from' => 'one.out', 'to' => 'two.in'],
                        ['ref' => 'B', 'from' => 'two.out', 'to' => 'one.in'],
                    ],
                ],
            ),
        );

        foreach (['E03/A', 'E03/B', 'E05/one.out', 'E05/two.out'] as $key) {
            self::assertSame(Verdict::Unproven, $build->finding($key)->verdict, $key);
        }
        self::assertStringContainsString(
            'feed itself',
            $build->finding('E03/A')->headline.$build->finding('E03/B')->headline,
        );
    }

    public function test_two_supplies_on_one_rail_are_named_and_never_solved(): void
    {
        $build = self::chain([['ref' => 'X', 'from' => 'conv.out', 'to' => 'fan.power']]);

        self::assertSame(Verdict::Fails, $build->finding('E06/fan.power')->verdict);
        self::assertStringContainsString('fed from psu and conv at once', $build->finding('E03/X')->headline);
        self::assertSame(Verdict::Unproven, $build->finding('E05/psu.out')->verdict);
    }

    public function test_a_rail_without_a_supply_says_so(): void
    {
        $build = new SampleBuild(
            Examples::file(
                [
                    Examples::part('module', 'switching_module', []),
                    Examples::part('bed', 'heater', ['rated_power' => '288 W', 'rated_voltage' => '24 V']),
                ],
                ['leads' => [['ref' => 'A', 'from' => 'module.out', 'to' => 'bed.power']]],
            ),
        );

        self::assertContains('a supply that feeds it', $build->finding('E03/A')->missing);
        self::assertContains('one supply that feeds it', $build->finding('E01/bed')->missing);
    }

    public function test_several_pieces_of_one_need_draw_together(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '5 A']),
                Examples::part('fan', 'fan', ['rated_current' => '0.5 A']),
            ],
            ['leads' => [['ref' => 'A', 'from' => 'psu.out', 'to' => 'fan.power']]],
        );
        $file['needs'][1]['quantity'] = 4;

        self::assertEqualsWithDelta(
            2.0,
            (new Circuits((new SampleBuild($file))->build))->flows()[0]->current('A')?->in('A'),
            1e-6,
        );
    }

    public function test_the_ledger_shows_each_output_with_what_is_left_and_the_energy_of_a_run(): void
    {
        $file = [
            'site' => ['mains_voltage' => '230 V', 'outlet' => '13 A', 'tariff' => '0.60'],
            'scenarios' => [
                [
                    'ref' => 'run',
                    'name' => 'Run',
                    'loads' => ['fan' => '100 %'],
                    'duration' => '2 h',
                    'runs_per_year' => 10,
                ],
            ],
        ];
        $build = self::chain()->build;
        $data = \Magpie\Core\Format\BuildFile::data($build);
        [$run] = (new PowerLedger(new Survey((new SampleBuild($file + $data))->build)))->toArray();
        $psu = array_values(array_filter($run['outputs'], static fn (array $o): bool => $o['ref'] === 'psu.out'))[0];
        $wall = array_values(array_filter($run['outputs'], static fn (array $o): bool => $o['mains']))[0];

        self::assertSame(
            [24.0, 1.167, 5.0, 3.833, 0.2333, []],
            [$psu['volts'], $psu['load'], $psu['limit'], $psu['left'], $psu['share'], $psu['missing']],
        );
        self::assertSame(
            ['conv', 'fan'],
            array_column($psu['loads'], 'need'),
            'The largest first; the host is never off.',
        );
        self::assertSame([6.0, 0.304], [$wall['limit'], $wall['load']]);
        // 28 W over 80 %: 35 W; 2 h: 70 Wh, 0.042 at 0.60; ten a year 0.42.
        self::assertSame(
            [35.0, 70.0, '0.04', '0.42'],
            [
                $run['energy']['watts'],
                $run['energy']['run_wh'],
                $run['energy']['run_cost'],
                $run['energy']['year_cost'],
            ],
        );
    }

    public function test_a_supply_without_cover_earth_switch_or_fuse_says_which(): void
    {
        $kit = static fn (array $psu, array $inlet = []): \Magpie\Core\Inspection\Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', $inlet),
                    Examples::part(
                        'psu',
                        'power_supply',
                        $psu + [
                            'terminal_cover' => true,
                            'earth_terminal' => true,
                            'own_switch' => true,
                            'own_fuse' => true,
                            'cooling' => 'fan',
                        ],
                    ),
                ],
                ['leads' => [['ref' => 'W', 'from' => 'inlet.out', 'to' => 'psu.mains']]],
            ),
        ))->finding('E05-kit/psu');

        self::assertSame(Verdict::Holds, $kit([])->verdict);
        self::assertSame(Verdict::Danger, $kit(['terminal_cover' => false])->verdict);
        self::assertSame(Verdict::Danger, $kit(['earth_terminal' => false])->verdict);
        self::assertSame(Verdict::Fails, $kit(['own_switch' => false])->verdict);
        self::assertSame(
            Verdict::Holds,
            $kit(['own_switch' => false, 'own_fuse' => false], ['switch' => true, 'fuse_rating' => '6.3 A'])->verdict,
            'They stand before it.',
        );
        self::assertSame(Verdict::Tight, $kit(['cooling' => 'fanless'])->verdict);
    }
}
