<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Thermal;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use Magpie\Core\Thermal\Rules\HeatUp;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class HeatTest extends TestCase
{
    /** A plate of 300 × 300 × 8 mm, with 600 W under it. */
    private const PLATE = [
        'rated_power' => '600 W',
        'rated_voltage' => '24 V',
        'plate_mass' => '1.94 kg',
        'plate_material' => 'aluminium',
        'target' => '105 °C',
        'heated_width' => '300 mm',
        'heated_depth' => '300 mm',
    ];

    /** Its headline and what is missing, with plain spaces before units. */
    private static function said(Finding $finding): string
    {
        return str_replace("\u{a0}", ' ', implode(' ', [$finding->headline, ...$finding->missing]));
    }

    public function test_heat_up_by_the_handbook_and_by_stepping_through_it(): void
    {
        // T01: 300×300×8 mm aluminium (1.94 kg, 897 J/kg·K), 75 K, 600 W: 218 s without losses.
        $build = new SampleBuild(HeatUp::bed(self::PLATE));
        $worked = [];
        foreach ($build->finding('T01/bed')->working as $step) {
            $worked[$step->label] = $step->result;
        }
        self::assertEqualsWithDelta(218, $worked['Without losses']?->in('s'), 0.6);
        // The same plate warmed in steps of 10 ms, losing 12 W/m²K from both faces.
        [$t, $time] = [0.0, 0.0];
        while ($t < 75) {
            $t += (0.01 * (600 - 12 * 2 * 0.09 * $t)) / (1.94 * 897);
            $time += 0.01;
        }
        self::assertEqualsWithDelta($time, $worked['With losses']?->in('s'), 0.5);
    }

    /**
     * @return iterable<string, array{string, array<string, string|bool>, array<string, string|bool>, Verdict}>
     */
    public static function heaters(): iterable
    {
        $bed = ['place' => 'bed', 'target' => '110 °C', 'thermal_fuse' => '150 °C', 'material_limit' => '180 °C'];
        yield 'a fuse between work and limit' => ['T03/it', $bed, [], Verdict::Holds];
        yield 'a fuse above what the mat stands' => [
            'T03/it',
            ['thermal_fuse' => '216 °C'] + $bed,
            [],
            Verdict::Danger,
        ];
        yield 'a fuse that goes in normal use' => ['T03/it', ['thermal_fuse' => '115 °C'] + $bed, [], Verdict::Fails];
        yield 'no fuse known' => ['T03/it', array_diff_key($bed, ['thermal_fuse' => 0]), [], Verdict::Unproven];
        yield 'above the lining' => [
            'T03/it',
            ['place' => 'hot end', 'target' => '260 °C'],
            ['lined' => true, 'lining_limit' => '240 °C', 'top_temperature' => '300 °C'],
            Verdict::Danger,
        ];
        yield 'an all-metal hot end' => [
            'T03/it',
            ['place' => 'hot end', 'target' => '260 °C'],
            ['lined' => false, 'top_temperature' => '300 °C'],
            Verdict::Holds,
        ];
        yield 'a lining nobody gave a figure' => [
            'T03/it',
            ['place' => 'hot end', 'target' => '260 °C'],
            ['lined' => true, 'top_temperature' => '300 °C'],
            Verdict::Unproven,
        ];
    }

    /**
     * What T03 says, to the kelvin.
     *
     * @return iterable<string, array{array<string, mixed>, list<array<string, mixed>>, Verdict, string}>
     */
    public static function cutOffs(): iterable
    {
        $bed = ['place' => 'bed', 'target' => '110 °C', 'material_limit' => '180 °C'];
        $end = ['place' => 'hot end', 'target' => '240 °C'];
        $hot = ['lined' => true, 'lining_limit' => '240 °C', 'top_temperature' => '300 °C'];
        yield 'just 10 K above the work' => [
            ['thermal_fuse' => '120 °C'] + $bed,
            [],
            Verdict::Holds,
            'A thermal fuse at 120 °C, 10 K above the work and below the 180 °C the material stands.',
        ];
        yield '9 K above it' => [
            ['thermal_fuse' => '119 °C'] + $bed,
            [],
            Verdict::Fails,
            'The thermal fuse opens at 119 °C, and the bed works at 110 °C: it goes in normal use.',
        ];
        yield 'just at what the material stands' => [
            ['thermal_fuse' => '180 °C'] + $bed,
            [],
            Verdict::Holds,
            'A thermal fuse at 180 °C, 70 K above the work and below the 180 °C the material stands.',
        ];
        yield 'later than it by its tolerance' => [
            ['thermal_fuse' => ['value' => '175 °C', 'tolerance' => '4 %', 'evidence' => 'datasheet']] + $bed,
            [],
            Verdict::Danger,
            'The thermal fuse opens at 182 °C; the material stands 180 °C. It burns before it is stopped.',
        ];
        yield 'sooner than the work by its tolerance' => [
            ['thermal_fuse' => ['value' => '125 °C', 'tolerance' => '5 %', 'evidence' => 'datasheet']] + $bed,
            [],
            Verdict::Fails,
            'The thermal fuse opens at 119 °C, and the bed works at 110 °C: it goes in normal use.',
        ];
        yield 'just at the lining' => [
            $end,
            [$hot],
            Verdict::Tight,
            '240 °C below the 240 °C its hot end stands. Runaway protection is its cut-off: test it.',
        ];
        yield 'a kelvin above the lining' => [
            ['target' => '241 °C'] + $end,
            [$hot],
            Verdict::Danger,
            '241 °C in a heat break lined for 240 °C: the lining gives off toxic fumes.',
        ];
        yield 'a lining in doubt' => [
            ['target' => '241 °C'] + $end,
            [array_diff_key($hot, ['lined' => 0])],
            Verdict::Danger,
            '241 °C in a heat break lined for 240 °C: the lining gives off toxic fumes.',
        ];
        yield 'above an end of metal' => [
            ['target' => '301 °C'] + $end,
            [['lined' => false] + $hot],
            Verdict::Danger,
            '301 °C on a hot end for 300 °C.',
        ];
        yield 'two ends that both stand it' => [
            ['target' => '230 °C'] + $end,
            [$hot, ['lined' => false] + $hot],
            Verdict::Holds,
            '230 °C below the 240 °C its hot end stands. Runaway protection is its cut-off: test it.',
        ];
        yield 'two ends of which one does not' => [
            ['target' => '250 °C'] + $end,
            [$hot, ['lined' => false] + $hot],
            Verdict::Unproven,
            'which hot end it sits in: hot0 would not stand 250 °C',
        ];
        yield 'no end at all' => [$end, [], Verdict::Unproven, 'the hot end it sits in'];
    }

    /**
     * @param  array<string, mixed>  $heater
     * @param  list<array<string, mixed>>  $ends
     */
    #[DataProvider('cutOffs')]
    public function test_a_cut_off_to_the_kelvin(array $heater, array $ends, Verdict $verdict, string $says): void
    {
        $parts = [Examples::part('it', 'heater', [])];
        foreach ($ends as $i => $end) {
            $parts[] = Examples::part("hot{$i}", 'hot_end', $end);
        }
        foreach ($heater as $key => $value) {
            $parts[0][0]['specs'][$key] = is_array($value) ? $value : ['value' => $value, 'evidence' => 'datasheet'];
        }
        $finding = (new SampleBuild(Examples::file($parts)))->finding('T03/it');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, self::said($finding));
    }

    public function test_a_heater_in_one_of_two_ends_is_judged_by_that_one(): void
    {
        $file = Examples::file([
            Examples::part('it', 'heater', ['place' => 'hot end', 'target' => '250 °C']),
            Examples::part('lined', 'hot_end', ['lined' => true, 'lining_limit' => '240 °C']),
            Examples::part('metal', 'hot_end', ['lined' => false, 'top_temperature' => '300 °C']),
        ]);
        $in = static function (string $end) use ($file): Verdict {
            $file['needs'][0]['sits_in'] = $end;

            return (new SampleBuild($file))->finding('T03/it')->verdict;
        };

        self::assertSame([Verdict::Danger, Verdict::Holds], [$in('lined'), $in('metal')]);
    }

    /**
     * The plate above on less: with 12 W/m²K from both faces 162 W leave it at 105 °C, and t = m·c·ΔT/P_l × −ln(1 − P_l/P).
     *
     * @return iterable<string, array{string, Verdict, string}>
     */
    public static function times(): iterable
    {
        // 805.6 s × 2.2343 is half an hour: at 181.42 W.
        yield 'half an hour' => ['181.5 W', Verdict::Holds, 'Slower than that is a fault.'];
        yield 'a little longer' => ['181.3 W', Verdict::Tight, 'which is long; a cover or insulation below helps.'];
        yield 'never' => ['161 W', Verdict::Fails, 'It never gets to 105 °C'];
    }

    #[DataProvider('times')]
    public function test_half_an_hour_is_the_longest_a_plate_may_take(
        string $power,
        Verdict $verdict,
        string $says,
    ): void {
        $finding = (new SampleBuild(HeatUp::bed(['rated_power' => $power] + self::PLATE)))->finding('T01/bed');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, self::said($finding));
    }

    public function test_a_chamber_heater_warms_up_a_hot_end_is_not_asked(): void
    {
        $asked = static fn (string $place): array => array_map(
            static fn (Finding $f): string => $f->key(),
            array_filter(
                iterator_to_array(
                    Rules::inspector()->inspect(
                        (new SampleBuild(HeatUp::bed(['place' => $place] + self::PLATE)))->build,
                    )->findings,
                    false,
                ),
                static fn (Finding $f): bool => $f->card->id === 'T01',
            ),
        );

        self::assertSame(['T01/bed'], array_values($asked('chamber')));
        self::assertSame([], $asked('hot end'));
    }

    /**
     * What T04 says of a print of PLA, whose glass transition is 60 °C, of a board, which bears 50 °C, and of a supply that
     * gives less above 40 °C.
     *
     * @return iterable<string, array{string, list<string>, Verdict, string}>
     */
    public static function places(): iterable
    {
        $moved = '. Move it out, or cool the place.';
        yield '20 K below the glass transition' => [
            '40 °C',
            ['print'],
            Verdict::Holds,
            '40 °C in Box: all that is known bears it, with 0 K to spare.',
        ];
        yield '19 K below it' => ['41 °C', ['print'], Verdict::Tight, "41 °C in Box: print bears 40 °C{$moved}"];
        yield '10 K below it' => ['50 °C', ['print'], Verdict::Tight, "50 °C in Box: print bears 40 °C{$moved}"];
        yield '9 K below it' => ['51 °C', ['print'], Verdict::Fails, "51 °C in Box: print bears 40 °C{$moved}"];
        yield 'a board at its limit' => [
            '50 °C',
            ['board'],
            Verdict::Holds,
            '50 °C in Box: all that is known bears it, with 0 K to spare.',
        ];
        yield 'a board above it' => ['51 °C', ['board'], Verdict::Fails, "51 °C in Box: board bears 50 °C{$moved}"];
        yield 'a supply that gives less' => [
            '41 °C',
            ['psu'],
            Verdict::Tight,
            "41 °C in Box: psu gives less above 40 °C{$moved}",
        ];
        yield 'the least that is left is told' => [
            '35 °C',
            ['board', 'psu'],
            Verdict::Holds,
            '35 °C in Box: all that is known bears it, with 5 K to spare.',
        ];
        yield 'both that bear too little' => [
            '55 °C',
            ['board', 'psu', 'rail'],
            Verdict::Fails,
            "55 °C in Box: board bears 50 °C; psu gives less above 40 °C{$moved}",
        ];
        yield 'nothing is known of a rail' => [
            '35 °C',
            ['rail'],
            Verdict::Unproven,
            'something in Box whose limit is known',
        ];
        yield 'nor of a print of nobody says what' => [
            '35 °C',
            ['unsaid', 'board'],
            Verdict::Unproven,
            'material of unsaid',
        ];
    }

    /**
     * @param  list<string>  $holds
     */
    #[DataProvider('places')]
    public function test_a_warm_place_to_the_kelvin(string $air, array $holds, Verdict $verdict, string $says): void
    {
        $finding = (new SampleBuild(
            Examples::file(
                [
                    Examples::part('print', 'printed_part', ['material' => 'PLA']),
                    Examples::part('unsaid', 'printed_part', []),
                    Examples::part('board', 'controller_board', []),
                    Examples::part('psu', 'power_supply', ['derate_from' => '40 °C']),
                    Examples::part('rail', 'linear_rail', []),
                ],
                [
                    'zones' => [
                        [
                            'ref' => 'box',
                            'name' => 'Box',
                            'kind' => 'cabinet',
                            'temperature' => $air,
                            'evidence' => 'measured',
                            'holds' => $holds,
                        ],
                    ],
                ],
            ),
        ))->finding('T04/box');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, self::said($finding));
    }

    /**
     * T02: 75 W on 120 × 120 mm is 0.52 W/cm². By what it gives, whatever its label says.
     *
     * @return iterable<string, array{string, string, string, Verdict, string}>
     */
    public static function densities(): iterable
    {
        yield 'usual' => ['75 W', '24 V', '24 V', Verdict::Holds, '0.52 W/cm²'];
        yield 'dense for low voltage' => ['120 W', '24 V', '24 V', Verdict::Tight, '0.83 W/cm²'];
        yield 'usual for a mains mat' => ['120 W', '230 V', '230 V', Verdict::Holds, '0.83 W/cm²'];
        yield 'burns where it lifts off' => ['300 W', '230 V', '230 V', Verdict::Danger, '2.08 W/cm²'];
        // A mat for 120 V on 230 V gives 3.67 times its label.
        yield 'of the other country' => ['75 W', '120 V', '230 V', Verdict::Danger, '1.91 W/cm²'];
        yield 'on half its voltage' => ['75 W', '24 V', '12 V', Verdict::Holds, '0.13 W/cm²'];
    }

    #[DataProvider('densities')]
    public function test_the_density_of_what_it_gives(
        string $watts,
        string $rated,
        string $on,
        Verdict $verdict,
        string $says,
    ): void {
        $sheet = [
            'rated_power' => $watts,
            'rated_voltage' => $rated,
            'heated_width' => '120 mm',
            'heated_depth' => '120 mm',
        ];
        $finding = (new SampleBuild(HeatUp::bed($sheet, $on)))->finding('T02/bed');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, $finding->headline);
        self::assertSame(str_contains($says, '0.13'), str_contains($finding->headline, 'It warms up slowly.'));
        self::assertSame(
            $verdict === Verdict::Danger,
            str_contains($finding->headline, 'Where it lifts off the plate it burns.'),
        );
    }

    public function test_a_bed_on_half_its_voltage_heats_with_a_quarter_of_its_watts(): void
    {
        $up = static fn (string $on): Finding => (new SampleBuild(HeatUp::bed(self::PLATE, $on)))->finding('T01/bed');

        self::assertSame(Verdict::Holds, $up('24 V')->verdict);
        self::assertSame(Verdict::Fails, $up('12 V')->verdict, '150 W against 162 W that leave the plate at 105 °C.');
    }

    public function test_a_bed_that_nothing_feeds_yet_is_told_by_its_label_and_proves_nothing(): void
    {
        $file = HeatUp::bed(['rated_power' => '75 W', 'heated_width' => '120 mm', 'heated_depth' => '120 mm']);
        $finding = (new SampleBuild(['leads' => []] + $file))->finding('T02/bed');

        self::assertSame(Verdict::Unproven, $finding->verdict);
        self::assertStringContainsString('0.52 W/cm²', $finding->headline);
    }

    /**
     * @param  array<string, string|bool>  $heater
     * @param  array<string, string|bool>  $hot
     */
    #[DataProvider('heaters')]
    public function test_limits_of_a_heater(string $key, array $heater, array $hot, Verdict $verdict): void
    {
        $finding = (new SampleBuild(
            Examples::file([
                Examples::part('it', 'heater', $heater),
                ...$hot === [] ? [] : [Examples::part('hot', 'hot_end', $hot)],
            ]),
        ))->finding($key);

        self::assertSame($verdict, $finding->verdict, $finding->headline);
    }

    public function test_a_warm_place_and_the_supply_that_stands_in_it(): void
    {
        $in = static fn (string $air): SampleBuild => new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => '24 V',
                        'rated_current' => '10 A',
                        'cooling' => 'fanless',
                        'derate_from' => '40 °C',
                        'derating' => '-2 %/K',
                    ]),
                    Examples::part('bed', 'heater', ['rated_power' => '168 W', 'rated_voltage' => '24 V']),
                    Examples::part('board', 'controller_board', []),
                ],
                [
                    'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']],
                    'zones' => [
                        [
                            'ref' => 'box',
                            'name' => 'Box',
                            'kind' => 'cabinet',
                            'temperature' => $air,
                            'evidence' => 'measured',
                            'holds' => ['psu', 'board'],
                        ],
                    ],
                ],
            ),
        );

        self::assertSame(Verdict::Holds, $in('35 °C')->finding('T04/box')->verdict);
        self::assertSame(Verdict::Fails, $in('55 °C')->finding('T04/box')->verdict, 'Electronics bear 50 °C.');
        self::assertSame(
            Verdict::Holds,
            $in('35 °C')->finding('E05/psu.out')->verdict,
            $in('35 °C')->finding('E05/psu.out')->headline,
        );
        // 15 K above, 2 %/K: 7 A of the 7 A that are left.
        self::assertSame(Verdict::Tight, $in('55 °C')->finding('E05/psu.out')->verdict);
        self::assertSame(Verdict::Fails, $in('57 °C')->finding('E05/psu.out')->verdict);
    }
}
