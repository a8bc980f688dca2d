<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Heat of what stands in a cabinet, each kind of thing by hand. */
final class CabinetLossesTest extends TestCase
{
    /**
     * @param  list<string>  $holds
     * @return array<string, mixed>
     */
    private static function cabinet(array $holds): array
    {
        [$board, $need] = Examples::part('board', 'controller_board', [
            'own_current' => '0.5 A',
            'min_voltage' => '12 V',
            'max_voltage' => '30 V',
        ]);

        return Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', []),
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '30 A',
                    'efficiency' => '90 %',
                    'input_voltage' => '90 V to 264 V',
                    'power_factor' => '0.9',
                ]),
                Examples::part('module', 'switching_module', [
                    'kind' => 'transistor',
                    'rated_current' => '30 A',
                    'on_resistance' => '10 mΩ',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '240 W']),
                Examples::part('drv', 'motor_driver', ['supply_current' => '2 A', 'set_current' => '2.5 A']),
                [$board, $need],
                Examples::part('box', 'cabinet', [
                    'material' => 'steel',
                    'width' => '400 mm',
                    'height' => '300 mm',
                    'depth' => '200 mm',
                ]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                    ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'module.in'],
                    ['ref' => 'W3', 'from' => 'module.out', 'to' => 'bed.power'],
                    ['ref' => 'W4', 'from' => 'psu.out', 'to' => 'drv.power'],
                    ['ref' => 'W5', 'from' => 'psu.out', 'to' => 'board.power'],
                ],
                'zones' => [
                    ['ref' => 'z', 'name' => 'Cabinet', 'kind' => 'cabinet', 'box' => 'box', 'holds' => $holds],
                ],
            ],
        );
    }

    /**
     * Everything on: the bed through 10 mΩ takes 24/(2.4 + 0.01) = 9.9585 A, the driver 2 A, the board 0.5 A.
     *
     * @return iterable<string, array{list<string>, float}>
     */
    public static function things(): iterable
    {
        $bed = 24 / 2.41;
        yield 'a supply keeps a tenth of what it gives, over its efficiency' => [
            ['psu'],
            24 * ($bed + 2.5) * (1 / 0.9 - 1),
        ];
        yield 'a module by I²·R' => [['module'], $bed ** 2 * 0.01];
        yield 'a driver keeps a tenth of what it takes' => [['drv'], 24 * 2 * 0.1];
        yield 'a board keeps all of it' => [['board'], 24 * 0.5];
        yield 'a bed heats nothing here' => [['bed', 'board'], 24 * 0.5];
        yield 'all together' => [
            ['psu', 'module', 'drv', 'board'],
            24 * ($bed + 2.5) * (1 / 0.9 - 1) + $bed ** 2 * 0.01 + 4.8 + 12,
        ];
    }

    /**
     * @param  list<string>  $holds
     */
    #[DataProvider('things')]
    public function test_the_heat_of_each(array $holds, float $watts): void
    {
        $finding = (new SampleBuild(self::cabinet($holds)))->finding('E23/z');
        $heat =
            array_values(
                array_filter($finding->working, static fn ($s): bool => $s->label === 'Heat that stays in it'),
            )[0]->result ?? self::fail($finding->headline);

        self::assertEqualsWithDelta($watts, $heat->in('W'), 0.02 * $watts);
    }

    public function test_an_ac_switch_by_its_drop(): void
    {
        $file = self::cabinet(['module']);
        foreach ($file['parts'] as $i => $part) {
            $part['ref'] === 'module' && ($file['parts'][$i]['specs']['kind']['value'] = 'AC solid-state');
        }
        $heat =
            array_values(
                array_filter(
                    (new SampleBuild($file))->finding('E23/z')->working,
                    static fn ($s): bool => $s->label === 'Heat that stays in it',
                ),
            )[0]->result ?? null;

        self::assertInstanceOf(Quantity::class, $heat);
        self::assertEqualsWithDelta((1.2 * 24) / 2.41, $heat->in('W'), 0.1);
    }

    /** A solid-state relay is warm by what it switches, whatever its family is called; contacts are not. */
    public function test_a_relay_by_what_it_switches_with(): void
    {
        $finding = static function (array $specs): Finding {
            $file = self::cabinet(['module', 'board']);
            [$relay] = Examples::part('module', 'relay', $specs);
            $file['parts'] = array_map(
                static fn (array $p): array => $p['ref'] === 'module' ? $relay : $p,
                $file['parts'],
            );
            $file['needs'] = array_map(
                static fn (array $n): array => $n['ref'] === 'module' ? ['family' => 'relay'] + $n : $n,
                $file['needs'],
            );

            return (new SampleBuild($file))->finding('E23/z');
        };
        $heat = static fn (Finding $f): ?float => (
            array_values(array_filter($f->working, static fn ($s): bool => $s->label === 'Heat that stays in it'))[0]
                ->result ?? null
        )?->in('W');

        self::assertEqualsWithDelta(12 + (1.2 * 24) / 2.4, (float) $heat($finding(['kind' => 'solid state, AC'])), 0.2);
        self::assertEqualsWithDelta(
            12 + (24 / 2.42) ** 2 * 0.02,
            (float) $heat($finding(['kind' => 'solid state, DC', 'on_resistance' => '20 mΩ'])),
            0.05,
        );
        self::assertEqualsWithDelta(12, (float) $heat($finding(['kind' => 'mechanical'])), 0.01);
        self::assertContains('resistance of module when it is on', $finding(['kind' => 'solid state, DC'])->missing);
        self::assertContains('kind of module', $finding([])->missing);
        $file = self::cabinet(['module', 'board']);
        $bed = array_search('bed', array_column($file['parts'], 'ref'), true);
        unset($file['parts'][$bed]['specs']['rated_power']);
        self::assertSame(
            Verdict::Unproven,
            (new SampleBuild($file))->finding('E23/z')->verdict,
            'What nobody knows of the load, nobody knows of the heat.',
        );
    }

    public function test_an_efficiency_nobody_gave_leaves_it_unproven(): void
    {
        $file = self::cabinet(['psu']);
        foreach ($file['parts'] as $i => $part) {
            if ($part['ref'] === 'psu') {
                unset($file['parts'][$i]['specs']['efficiency']);
            }
        }

        self::assertSame(Verdict::Unproven, (new SampleBuild($file))->finding('E23/z')->verdict);
        self::assertContains('efficiency at full load of psu', (new SampleBuild($file))->finding('E23/z')->missing);
    }

    public function test_a_cabinet_of_cold_things_has_nothing_to_judge(): void
    {
        self::assertSame(
            ['something in Cabinet that gives off heat'],
            (new SampleBuild(self::cabinet(['bed'])))->finding('E23/z')->missing,
        );
    }

    public function test_the_worst_scenario_is_the_one_that_is_judged(): void
    {
        $file = self::cabinet(['psu']) + [
            'scenarios' => [
                ['ref' => 'idle', 'name' => 'Idle', 'loads' => []],
                ['ref' => 'hot', 'name' => 'Heat-up', 'loads' => ['bed' => '100 %', 'drv' => '100 %']],
            ],
        ];

        self::assertSame('Heat-up', (new SampleBuild($file))->finding('E23/z')->scenario);
    }
}
