<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Thermal;

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
