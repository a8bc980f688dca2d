<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Rules\ContactLoad;
use Magpie\Core\Electrical\Rules\Energy;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each electrical rule at its limit, just under it and just over it, against the values of the handbook. */
final class LimitsTest extends TestCase
{
    /**
     * A 24 V heater of so many watts on a supply of 24 V, with whatever else is said of the lead, the plug and the
     * site.
     *
     * @param  array<string, mixed>  $lead
     * @param  array<string, string|bool>  $supply
     * @param  array<string, mixed>  $rest
     */
    private static function heater(
        string $watts,
        array $lead = [],
        array $supply = [],
        array $rest = [],
        string $contact = '10 A',
    ): SampleBuild {
        $file = Examples::file(
            [
                Examples::part(
                    'psu',
                    'power_supply',
                    $supply + ['output_voltage' => '24 V', 'rated_current' => '100 A', 'contact_rating' => '60 A'],
                ),
                Examples::part('bed', 'heater', [
                    'rated_power' => $watts,
                    'rated_voltage' => '24 V',
                    'contact_rating' => '60 A',
                ]),
                Examples::part('plug', 'contact_housing', ['contact_rating' => $contact]),
                Examples::part('F1', 'fuse', ['rated_current' => '10 A']),
            ],
            ['leads' => [$lead + ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power', 'route' => 'fixed']]] +
                $rest + ['site' => ['ambient' => '30 °C', 'mains_voltage' => '230 V']],
        );

        return new SampleBuild($file);
    }

    /**
     * @return iterable<string, array{string, Verdict}>
     */
    public static function contacts(): iterable
    {
        // One 10 A contact: up to 8 A holds, to 10 A tight, above danger. At 24 V, 192 W is 8 A and 240 W is 10 A.
        yield 'at 80 %' => ['192 W', Verdict::Holds];
        yield 'just over 80 %' => ['192.1 W', Verdict::Tight];
        yield 'at its rating' => ['240 W', Verdict::Tight];
        yield 'just over its rating' => ['240.1 W', Verdict::Danger];
    }

    #[DataProvider('contacts')]
    public function test_a_contact_at_its_limits(string $watts, Verdict $verdict): void
    {
        $lead = [
            'ends' => [
                ['termination' => 'ferrule'],
                ['termination' => 'crimp', 'contact' => 'plug', 'contacts_per_pole' => 1],
            ],
        ];

        self::assertSame($verdict, self::heater($watts, $lead)->finding('E02/W1')->verdict);
    }

    public function test_a_bed_on_one_contact_pair_overheats_its_plug_and_a_second_pair_cures_it(): void
    {
        $one = (new SampleBuild(ContactLoad::bedOn(1)))->finding('E02/W1');
        $two = (new SampleBuild(ContactLoad::bedOn(2)))->finding('E02/W1');

        self::assertSame(Verdict::Danger, $one->verdict);
        self::assertStringContainsString("12\u{a0}A", $one->headline);
        self::assertSame(Verdict::Holds, $two->verdict);
    }

    public function test_a_lead_doubled_at_one_end_only_is_not_doubled(): void
    {
        $ends = static fn (?int $joined): array => [
            'conductor' => ['size' => '1.5 mm²', 'evidence' => 'datasheet', 'parallel' => 2],
            'length' => '0.1 m',
            'ends' => [
                ['termination' => 'ferrule'],
                array_filter([
                    'termination' => 'crimp',
                    'contact' => 'plug',
                    'contacts_per_pole' => 2,
                    'conductors' => $joined,
                ]),
            ],
        ];

        self::assertSame(Verdict::Holds, self::heater('288 W', $ends(null))->finding('E02/W1')->verdict);
        self::assertSame(Verdict::Danger, self::heater('288 W', $ends(1))->finding('E02/W1')->verdict);
    }

    public function test_a_moving_joint_without_relief_is_a_danger_whatever_the_current(): void
    {
        $lead = static fn (?bool $relief): array => [
            'route' => 'flexing',
            'ends' => array_fill(
                0,
                2,
                array_filter(
                    ['termination' => 'ferrule', 'strain_relief' => $relief],
                    static fn (mixed $v): bool => $v !== null,
                ),
            ),
        ];

        self::assertSame(Verdict::Danger, self::heater('20 W', $lead(false))->finding('E02/W1')->verdict);
        self::assertSame(
            Verdict::Unproven,
            self::heater('20 W', $lead(null))->finding('E02/W1')->verdict,
            'Not said is not safe.',
        );
        self::assertSame(Verdict::Holds, self::heater('20 W', $lead(true))->finding('E02/W1')->verdict);
    }

    /**
     * @return iterable<string, array{string, string, Verdict}>
     */
    public static function conductors(): iterable
    {
        // 18 AWG carries 7 A at 30 °C (NFPA 79): 5.6 A holds, 7 A tight. The lead is 1 mm long, so no drop matters.
        yield '18 AWG at 80 %' => ['18 AWG', '134.4 W', Verdict::Holds];
        yield '18 AWG just over 80 %' => ['18 AWG', '134.7 W', Verdict::Tight];
        yield '18 AWG just under its rating' => ['18 AWG', '167.9 W', Verdict::Tight];
        yield '18 AWG over its rating' => ['18 AWG', '168.3 W', Verdict::Danger];
        // 2.5 mm² in free air: 22 A × 1.15 = 25.3 A at 30 °C.
        yield '2.5 mm² at 80 %' => ['2.5 mm²', '485.7 W', Verdict::Holds];
        yield '2.5 mm² over it' => ['2.5 mm²', '486.2 W', Verdict::Tight];
    }

    #[DataProvider('conductors')]
    public function test_a_conductor_at_its_limits(string $size, string $watts, Verdict $verdict): void
    {
        $lead = ['conductor' => ['size' => $size, 'evidence' => 'datasheet'], 'length' => '1 mm'];

        self::assertSame($verdict, self::heater($watts, $lead)->finding('E03/W1')->verdict);
    }

    public function test_warm_air_and_company_take_from_a_conductor(): void
    {
        $lead = ['conductor' => ['size' => '18 AWG', 'evidence' => 'datasheet'], 'length' => '1 mm'];
        $warm = ['site' => ['ambient' => '50 °C', 'mains_voltage' => '230 V']];

        self::assertSame(Verdict::Holds, self::heater('120 W', $lead)->finding('E03/W1')->verdict);
        self::assertSame(
            Verdict::Danger,
            self::heater('125 W', $lead, [], $warm)->finding('E03/W1')->verdict,
            '7 A × 0.82 / 1.15 = 4.99 A',
        );
        self::assertSame(
            Verdict::Danger,
            self::heater('120 W', ['bundled_with' => 3] + $lead)->finding('E03/W1')->verdict,
            '7 A × 0.65 = 4.55 A',
        );
        self::assertSame(
            Verdict::Unproven,
            self::heater('20 W', $lead, [], ['site' => []])->finding('E03/W1')->verdict,
            'Air not known.',
        );
    }

    public function test_the_handbook_drop_of_twelve_amps_through_a_metre_and_a_fifth(): void
    {
        // Solid 18 AWG: 0.60 V at 20 °C, 2.5 % of 24 V; 0.70 V at 60 °C.
        $cold = 12 * 2 * 1.2 * Conductors::resistance(Quantity::of(18, 'AWG'))->in('Ω/m');

        self::assertEqualsWithDelta(0.6033, $cold, 1e-4);
        self::assertEqualsWithDelta(0.698, $cold * Conductors::warmth(60), 1e-3);
    }

    public function test_a_lead_is_as_warm_as_its_air_and_its_load_make_it(): void
    {
        $drop = static fn (string $amps, string $stranding, array $rest = []): string => str_replace(
            "\u{a0}",
            ' ',
            (new SampleBuild(
                Examples::file(
                    [
                        Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                        Examples::part('load', 'motor_driver', ['supply_current' => $amps]),
                    ],
                    $rest + [
                        'leads' => [
                            [
                                'ref' => 'W1',
                                'from' => 'psu.out',
                                'to' => 'load.power',
                                'conductor' => [
                                    'size' => '18 AWG',
                                    'evidence' => 'datasheet',
                                    'stranding' => $stranding,
                                ],
                                'length' => '1.2 m',
                            ],
                        ],
                        'site' => ['ambient' => '30 °C'],
                    ],
                ),
            ))->finding('E04/load.power')->headline,
        );

        // 7 A is what NFPA 79 lets 18 AWG carry at 30 °C: half of it warms the conductor by a quarter of 40 K, to 40 °C.
        // 3.5 A × 2.4 m × 20.95 mΩ/m × (1 + 0.00393 × 20) = 0.1898 V; stranded as class 5 allows, 13.1 % more.
        self::assertStringContainsString('0.19 V (0.791 %)', $drop('3.5 A', 'solid'));
        self::assertStringContainsString('0.215 V (0.894 %)', $drop('3.5 A', 'stranded'));
        // In a cabinet of 50 °C it may carry 4.99 A; 3.5 A of that warm it to 59.8 °C.
        $cabinet = [
            ['ref' => 'box', 'name' => 'Box', 'kind' => 'cabinet', 'temperature' => '50 °C', 'holds' => ['psu']],
        ];
        self::assertStringContainsString('0.204 V', $drop('3.5 A', 'solid', ['zones' => $cabinet]));
    }

    public function test_a_drop_at_three_and_five_per_cent_and_a_starved_load(): void
    {
        // 10 A on 1.5 mm², which may carry 13.1 A × 1.15 in air of 30 °C: the conductor has 47.6 °C, and 13.3 Ω/km at
        // 20 °C are 14.74. 3 % of 24 V is 0.72 V, reached at 2.442 m; 5 % at 4.070 m.
        $over = static fn (string $length, array $load = []): Verdict => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                    Examples::part('load', 'motor_driver', $load + ['supply_current' => '10 A']),
                ],
                [
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'psu.out',
                            'to' => 'load.power',
                            'conductor' => ['size' => '1.5 mm²', 'evidence' => 'datasheet'],
                            'length' => $length,
                        ],
                    ],
                ],
            ),
        ))->finding('E04/load.power')->verdict;

        self::assertSame(Verdict::Holds, $over('2.441 m'));
        self::assertSame(Verdict::Tight, $over('2.443 m'));
        self::assertSame(Verdict::Tight, $over('4.069 m'));
        self::assertSame(Verdict::Fails, $over('4.071 m'));
        self::assertSame(Verdict::Fails, $over('2 m', ['min_voltage' => '23.5 V']), '23.41 V arrives.');
        self::assertSame(Verdict::Holds, $over('2 m', ['min_voltage' => '23 V']));
    }

    /**
     * @return iterable<string, array{string, array<string, string>, Verdict}>
     */
    public static function supplies(): iterable
    {
        yield 'at 80 %' => ['192 W', ['rated_current' => '10 A'], Verdict::Holds];
        yield 'just over 80 %' => ['192.2 W', ['rated_current' => '10 A'], Verdict::Tight];
        yield 'at its rating' => ['240 W', ['rated_current' => '10 A'], Verdict::Tight];
        yield 'just over' => ['240.2 W', ['rated_current' => '10 A'], Verdict::Fails];
        // A 650 W label that holds only 360 W on this output: the lesser governs.
        yield 'its label allows less' => [
            '200 W',
            ['rated_current' => '20 A', 'rated_power' => '240 W'],
            Verdict::Tight,
        ];
        // Fanless: −2 %/K above 50 °C by default; the site is at 30 °C, so none of it.
        yield 'fanless in cool air' => ['192 W', ['rated_current' => '10 A', 'cooling' => 'fanless'], Verdict::Holds];
        // Full to 20 °C, then −1 %/K: 10 K over takes a tenth, 9 A; 80 % of that is 7.2 A, 172.8 W.
        yield 'fanless in warm air, at 80 %' => [
            '172.8 W',
            ['rated_current' => '10 A', 'cooling' => 'fanless', 'derate_from' => '20 °C', 'derating' => '-1 %/K'],
            Verdict::Holds,
        ];
        yield 'fanless in warm air, over it' => [
            '173.2 W',
            ['rated_current' => '10 A', 'cooling' => 'fanless', 'derate_from' => '20 °C', 'derating' => '-1 %/K'],
            Verdict::Tight,
        ];
    }

    /**
     * @param  array<string, string>  $supply
     */
    #[DataProvider('supplies')]
    public function test_a_supply_at_its_limits(string $watts, array $supply, Verdict $verdict): void
    {
        self::assertSame($verdict, self::heater($watts, [], $supply)->finding('E05/psu.out')->verdict);
    }

    public function test_a_fanless_supply_in_a_box_is_judged_in_the_air_of_that(): void
    {
        // Full to 50 °C, then −2 %/K: in air of 60 °C it gives 8 A, 80 % of that is 153.6 W.
        $in = static fn (string $watts, array $zone): Finding => self::heater(
            $watts,
            [],
            ['rated_current' => '10 A', 'cooling' => 'fanless'],
            [
                'zones' => [['ref' => 'box', 'name' => 'Box', 'kind' => 'cabinet', 'holds' => ['psu']] + $zone],
                'site' => ['ambient' => '30 °C'],
            ],
        )->finding('E05/psu.out');
        $warm = ['temperature' => '60 °C', 'evidence' => 'measured'];
        self::assertSame(Verdict::Holds, $in('153 W', $warm)->verdict);
        self::assertSame(Verdict::Tight, $in('154 W', $warm)->verdict);
        self::assertContains('hottest air in Box', $in('153 W', [])->missing);
        self::assertSame(Verdict::Unproven, $in('153 W', [])->verdict);
    }

    public function test_what_was_read_at_the_wall_counts_where_one_supply_alone_can_have_given_it(): void
    {
        $file = static fn (array ...$more): array => Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '10 A',
                    'efficiency' => '80 %',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '120 W']),
                ...array_values($more),
            ],
            [
                'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']],
                'scenarios' => [['ref' => 's', 'name' => 'S', 'loads' => ['bed' => '100 %'], 'measured' => '250 W']],
            ],
        );
        $says = static fn (array $f): string => str_replace(
            "\u{a0}",
            ' ',
            (new SampleBuild($f))->finding('E05/psu.out')->headline,
        );
        // 250 W at 80 %: 200 W, 8.33 A at 24 V; of two supplies nobody knows which gave it.
        self::assertStringContainsString('8.33 A of 10 A', $says($file()));
        self::assertStringContainsString('5 A of 10 A', $says($file(Examples::part('other', 'power_supply', []))));
    }

    public function test_a_driver_at_half_its_share_takes_a_third_of_its_set_current(): void
    {
        $build = (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']),
                    Examples::part('drv', 'motor_driver', ['set_current' => '3 A']),
                ],
                [
                    'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drv.power']],
                    'scenarios' => [['ref' => 'idle', 'name' => 'Idle', 'loads' => ['drv' => '50 %']]],
                ],
            ),
        ))->build;
        $circuits = Circuits::of(new Survey($build));
        $demand = $circuits->demand((int) $circuits->topology->node('drv.power'), $build->scenarios['idle']);

        // Two thirds of what is set, where its sheet does not say, for half of the time.
        self::assertEqualsWithDelta(1.0, $demand->current?->in('A'), 1e-9);
    }

    public function test_the_scenario_that_loads_a_supply_most_governs(): void
    {
        $rest = [
            'scenarios' => [
                ['ref' => 'off', 'name' => 'Idle', 'loads' => ['bed' => '0 %']],
                ['ref' => 'on', 'name' => 'Heat-up', 'loads' => ['bed' => '40 %']],
            ],
            'site' => ['ambient' => '30 °C'],
        ];
        $finding = self::heater('288 W', [], ['rated_current' => '10 A'], $rest)->finding('E05/psu.out');

        // A heater that is on for part of the time draws all of its current while it is on.
        self::assertSame(Verdict::Fails, $finding->verdict);
        self::assertSame('Heat-up', $finding->scenario);
    }

    /**
     * @return iterable<string, array{string, Verdict}>
     */
    public static function rails(): iterable
    {
        // 35 V parts on a motor rail: 24 V holds, 32 V is tight, 36 V is danger; 31.5 V is 90 % and 33.25 V 95 %.
        yield '24 V' => ['24 V', Verdict::Holds];
        yield '31.5 V' => ['31.5 V', Verdict::Holds];
        yield '32 V' => ['32 V', Verdict::Tight];
        yield '33.25 V' => ['33.25 V', Verdict::Tight];
        yield '33.3 V' => ['33.3 V', Verdict::Danger];
        yield '36 V' => ['36 V', Verdict::Danger];
        yield 'too little' => ['9 V', Verdict::Fails];
    }

    /**
     * @return iterable<string, array{string, array{string, string}, Verdict, string}>
     */
    public static function windows(): iterable
    {
        $nominal = ['5 V', '24 V'];
        $limits = ['4.9 V', '24.2 V'];
        yield 'within what the sheet names' => ['24 V', $nominal, Verdict::Holds, 'this input stands'];
        yield 'a supply that holds a little more' => ['24.5 V', $nominal, Verdict::Tight, 'its sheet ends at 24 V, a nominal'];
        yield 'a twentieth more' => ['25.2 V', $nominal, Verdict::Tight, 'turn the supply down'];
        yield 'more than that' => ['25.3 V', $nominal, Verdict::Danger, 'more than it is made for'];
        yield 'a supply that holds a little less' => ['4.9 V', $nominal, Verdict::Tight, 'begins at 5 V, a nominal'];
        yield 'a twentieth less' => ['4.75 V', $nominal, Verdict::Tight, 'begins at 5 V'];
        yield 'less than that' => ['4.74 V', $nominal, Verdict::Fails, 'this input needs 5 V'];
        yield 'past a limit that is no nominal voltage' => ['24.3 V', $limits, Verdict::Danger, 'more than it is made for'];
        yield 'short of one' => ['4.89 V', $limits, Verdict::Fails, 'this input needs 4.9 V'];
    }

    /**
     * @param  array{string, string}  $window
     */
    #[DataProvider('windows')]
    public function test_a_sheet_that_names_nominal_voltages_means_them_with_a_little(
        string $volts,
        array $window,
        Verdict $verdict,
        string $says,
    ): void {
        $lamp = static fn (string $length): SampleBuild => new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => $volts, 'rated_current' => '10 A']),
                    Examples::part('lamp', 'lamp', [
                        'min_voltage' => $window[0],
                        'max_voltage' => $window[1],
                        'rated_current' => '1 A',
                    ]),
                ],
                [
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'psu.out',
                            'to' => 'lamp.power',
                            'length' => $length,
                            'conductor' => ['size' => '1 mm²', 'evidence' => 'measured'],
                        ],
                    ],
                ],
            ),
        );
        $finding = $lamp('0.1 m')->finding('E06/lamp.power');
        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
        // What is lost on the way is judged by the same: 0.5 m lose some 20 mV, 3 m more than a twentieth of 5 V.
        if ($volts === '4.9 V') {
            self::assertSame(Verdict::Tight, $lamp('0.5 m')->finding('E04/lamp.power')->verdict);
            self::assertSame(Verdict::Fails, $lamp('5 m')->finding('E04/lamp.power')->verdict);
        }
        if ($volts === '4.89 V') {
            self::assertSame(Verdict::Fails, $lamp('0.1 m')->finding('E04/lamp.power')->verdict);
        }
    }

    public function test_on_a_motor_rail_a_nominal_voltage_is_a_limit_like_any_other(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']),
                Examples::part('drv', 'motor_driver', [
                    'min_voltage' => '12 V',
                    'max_voltage' => '24 V',
                    'supply_current' => '2 A',
                ]),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drv.power']]],
        );
        self::assertSame(Verdict::Danger, (new SampleBuild($file))->finding('E06/drv.power')->verdict);
        $file['parts'][0]['specs']['output_voltage']['value'] = '11.5 V';
        self::assertSame(Verdict::Tight, (new SampleBuild($file))->finding('E06/drv.power')->verdict);
        $file['parts'][0]['specs']['output_voltage']['value'] = '11.3 V';
        self::assertSame(Verdict::Fails, (new SampleBuild($file))->finding('E06/drv.power')->verdict);
    }

    private static function rail(string $volts): Finding
    {
        return (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => $volts, 'rated_current' => '10 A']),
                    Examples::part('drv', 'motor_driver', [
                        'min_voltage' => '10 V',
                        'max_voltage' => '35 V',
                        'supply_current' => '2 A',
                    ]),
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drv.power']]],
            ),
        ))->finding('E06/drv.power');
    }

    #[DataProvider('rails')]
    public function test_a_motor_rail_stays_clear_of_its_weakest_part(string $volts, Verdict $verdict): void
    {
        self::assertSame($verdict, self::rail($volts)->verdict);
    }

    public function test_a_motor_rail_under_its_weakest_part_but_too_near_says_why_it_is_a_danger(): void
    {
        self::assertSame(Verdict::Danger, self::rail('34 V')->verdict);
        self::assertStringContainsString('push back when they brake', self::rail('34 V')->headline);
        self::assertSame(Verdict::Danger, self::rail('36 V')->verdict);
        self::assertStringContainsString('more than it is made for', self::rail('36 V')->headline);
        self::assertStringContainsString('It burns', self::rail('39 V')->headline);
        self::assertSame(Verdict::Tight, self::rail('33 V')->verdict);
        // A danger is past its limit, which is short of the rating.
        self::assertLessThan(0.0, self::rail('34 V')->margin?->in(''));
        self::assertGreaterThan(0.0, self::rail('33 V')->margin?->in(''));
    }

    public function test_a_board_fed_from_two_sources_fails_and_its_currents_are_not_guessed(): void
    {
        $build = new SampleBuild(
            Examples::file(
                [
                    Examples::part('main', 'power_supply', ['output_voltage' => '5 V', 'rated_current' => '10 A']),
                    Examples::part('bench', 'power_supply', ['output_voltage' => '5 V', 'rated_current' => '2 A']),
                    Examples::part('host', 'host_computer', [
                        'min_voltage' => '4.8 V',
                        'max_voltage' => '5.3 V',
                        'rated_current' => '2 A',
                    ]),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'main.out', 'to' => 'host.power'],
                        ['ref' => 'USB', 'from' => 'bench.out', 'to' => 'host.power'],
                    ],
                ],
            ),
        );

        self::assertSame(Verdict::Fails, $build->finding('E06/host.power')->verdict);
        self::assertStringContainsString('fed from main and bench at once', $build->finding('E03/USB')->headline);
        self::assertSame(Verdict::Unproven, $build->finding('E03/USB')->verdict);
    }

    /**
     * @return iterable<string, array{string, Verdict}>
     */
    public static function heaters(): iterable
    {
        // (V/24)² of its power: 12 V gives a quarter (72 of 288 W), 21.47 V is 80 %, 25.74 V 115 %, 27.36 V 130 %.
        yield '12 V' => ['12 V', Verdict::Fails];
        yield '18.58 V' => ['18.58 V', Verdict::Fails];
        yield '18.6 V' => ['18.6 V', Verdict::Tight];
        yield '21.46 V' => ['21.46 V', Verdict::Tight];
        yield '21.47 V' => ['21.47 V', Verdict::Holds];
        yield '25.73 V' => ['25.73 V', Verdict::Holds];
        yield '25.75 V' => ['25.75 V', Verdict::Tight];
        yield '27.37 V' => ['27.37 V', Verdict::Danger];
        yield '48 V' => ['48 V', Verdict::Danger];
    }

    #[DataProvider('heaters')]
    public function test_a_heater_on_another_voltage(string $volts, Verdict $verdict): void
    {
        self::assertSame(
            $verdict,
            self::heater('288 W', [], ['output_voltage' => $volts])->finding('E01/bed')->verdict,
        );
    }

    public function test_a_mains_heater_of_another_country_is_a_danger(): void
    {
        $build = new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', ['rated_current' => '10 A', 'fuse_rating' => '10 A']),
                    [
                        [
                            'ref' => 'mat',
                            'family' => 'heater',
                            'name' => 'Mat',
                            'specs' => Examples::sheet(['rated_power' => '600 W', 'rated_voltage' => '120 V']),
                            'ports' => [['name' => 'power', 'mains' => true]],
                        ],
                        Examples::part('mat', 'heater', [])[1],
                    ],
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'mat.power']]],
            ),
        );

        self::assertSame(Verdict::Danger, $build->finding('E01/mat')->verdict, '600 W × (230/120)² = 2204 W');
        self::assertStringContainsString("2204\u{a0}W", $build->finding('E01/mat')->headline);
    }

    public function test_what_is_missing_is_named_and_never_passes(): void
    {
        $build = new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                    Examples::part('bed', 'heater', ['rated_voltage' => '24 V']),
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']]],
            ),
        );

        foreach (
            [
                'E03/W1' => 'rated power of bed',
                'E05/psu.out' => 'rated current of psu, port out',
                'E13/psu.out' => 'rated current of psu, port out',
                'E06/bed.power' => 'highest voltage bed accepts',
            ] as $key => $missing
        ) {
            $finding = $build->finding($key);
            self::assertSame(Verdict::Unproven, $finding->verdict, $key);
            self::assertContains($missing, $finding->missing, $key.': '.implode('; ', $finding->missing));
        }
    }

    public function test_a_danger_stays_one_while_other_loads_are_unknown(): void
    {
        $file = ContactLoad::bedOn(1);
        [$file['parts'][], $file['needs'][]] = Examples::part('fan', 'fan', []);
        $file['leads'][] = ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'fan.power'];

        self::assertSame(Verdict::Danger, (new SampleBuild($file))->finding('E02/W1')->verdict);
        self::assertSame(Verdict::Unproven, (new SampleBuild($file))->finding('E05/psu.out')->verdict);
    }

    public function test_energy_of_a_print_worked_by_hand(): void
    {
        // 288 W half the time out of a supply of 90 %: 160 W, 4 h: 640 Wh; at 0.28 a kilowatt-hour 0.1792 a run.
        $finding = (new SampleBuild((new Energy)->examples()->holding()))->finding('E25/print');

        self::assertStringContainsString("160\u{a0}W", $finding->headline);
        self::assertStringContainsString("640\u{a0}W\u{a0}h", $finding->headline);
        self::assertStringContainsString("100 runs a year cost GBP\u{a0}17.92", $finding->headline);
    }

    public function test_a_limit_set_by_the_builder_governs_and_shows(): void
    {
        $limits = [
            'limits' => [['check' => 'E05', 'key' => 'holds', 'value' => '70 %', 'reason' => 'hot loft']],
            'site' => ['ambient' => '30 °C'],
        ];
        $finding = self::heater('180 W', [], ['rated_current' => '10 A'], $limits)->finding('E05/psu.out');

        self::assertSame(Verdict::Tight, $finding->verdict, '75 % used.');
        self::assertStringContainsString(
            'hot loft',
            implode(' ', array_map(static fn ($s): string => $s->text(), $finding->working)),
        );
    }

    public function test_an_unlikely_size_rests_on_nothing_until_it_is_confirmed(): void
    {
        $confirmed = static fn (bool $yes): Finding => (new SampleBuild([
            'parts' => [
                [
                    'ref' => 'psu',
                    'family' => 'power_supply',
                    'name' => 'psu',
                    'specs' => Examples::sheet(['output_voltage' => '24 V', 'rated_current' => '500 A']),
                ],
                [
                    'ref' => 'bed',
                    'family' => 'heater',
                    'name' => 'bed',
                    'specs' => [
                        'rated_power' => ['value' => '6 kW', 'evidence' => 'datasheet', 'confirmed' => $yes],
                        'rated_voltage' => ['value' => '24 V', 'evidence' => 'datasheet'],
                    ],
                ],
            ],
            'needs' => [
                ['ref' => 'psu', 'role' => 'psu', 'family' => 'power_supply', 'choice' => 'psu'],
                ['ref' => 'bed', 'role' => 'bed', 'family' => 'heater', 'choice' => 'bed'],
            ],
            'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']],
        ]))->finding('E01/bed');

        self::assertSame(Verdict::Unproven, $confirmed(false)->verdict);
        self::assertSame(Verdict::Holds, $confirmed(true)->verdict);
    }

    public function test_a_percentage_never_widens_what_a_part_stands_or_lowers_what_it_needs(): void
    {
        $on = static fn (
            string $volts,
            array $max,
            array $min = ['value' => '5 V', 'evidence' => 'datasheet'],
        ): Verdict => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => $volts,
                        'rated_current' => '10 A',
                        'voltage_tolerance' => '0 %',
                    ]),
                    [
                        [
                            'ref' => 'fan',
                            'family' => 'fan',
                            'name' => 'fan',
                            'specs' => Examples::sheet(['rated_voltage' => '24 V', 'rated_current' => '0.2 A']) + [
                                'max_voltage' => $max,
                                'min_voltage' => $min,
                            ],
                        ],
                        [
                            'ref' => 'fan',
                            'role' => 'Fan',
                            'family' => 'fan',
                            'candidates' => ['fan'],
                            'choice' => 'fan',
                        ],
                    ],
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'fan.power']]],
            ),
        ))->finding('E06/fan.power')->verdict;
        $rated = static fn (string $volts, ?string $tolerance = null): array => array_filter([
            'value' => $volts,
            'evidence' => 'datasheet',
            'tolerance' => $tolerance,
        ]);

        self::assertSame(
            Verdict::Danger,
            $on('28 V', $rated('26 V', '10 %')),
            '26 V ± 10 % is 23.4 V for certain, not 28.6 V.',
        );
        self::assertSame(Verdict::Danger, $on('28 V', $rated('26 V')));
        self::assertSame(Verdict::Holds, $on('23 V', $rated('26 V', '10 %')));
        self::assertSame(
            Verdict::Fails,
            $on('12 V', $rated('26 V'), $rated('11 V', '20 %')),
            '11 V ± 20 % may want 13.2 V.',
        );
        self::assertSame(Verdict::Holds, $on('12 V', $rated('26 V'), $rated('11 V')));
    }

    public function test_currents_that_follow_from_an_assumed_voltage_prove_nothing(): void
    {
        $bed = static function (string $evidence): SampleBuild {
            $file = ContactLoad::bedOn(2);
            $file['parts'][0]['specs']['output_voltage']['evidence'] = $evidence;
            $file['leads'][0]['conductor'] = ['size' => '2.5 mm²', 'evidence' => 'datasheet'];
            $file['leads'][0]['length'] = '0.8 m';

            return new SampleBuild($file);
        };
        foreach (['E02/W1', 'E03/W1', 'E04/bed.power', 'E05/psu.out'] as $key) {
            self::assertTrue($bed('datasheet')->finding($key)->verdict->passes(), $key);
            self::assertSame(Verdict::Unproven, $bed('assumed')->finding($key)->verdict, $key);
        }
    }

    /** A hand router on the mains, by the one voltage on its plate: a sixth either way is its own mains. */
    public function test_a_motor_on_the_mains_is_held_to_the_voltage_on_its_plate(): void
    {
        $verdict = static fn (string $plate, string $mains): Verdict => (new SampleBuild(Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', ['contact_rating' => '10 A']),
                Examples::part('router', 'spindle', ['rated_power' => '700 W', 'rated_voltage' => $plate, 'efficiency' => '60 %']),
            ],
            [
                'site' => ['mains_voltage' => $mains],
                'leads' => [['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'router.power']],
            ],
        )))->finding('E06/router.power')->verdict;
        self::assertSame(
            [Verdict::Holds, Verdict::Holds, Verdict::Danger, Verdict::Danger, Verdict::Fails],
            [
                $verdict('230 V', '230 V'),
                $verdict('220 V', '240 V'),
                $verdict('120 V', '230 V'),
                $verdict('48 V', '120 V'),
                $verdict('230 V', '120 V'),
            ],
        );
    }
}
