<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Electrical\Rules\MotorCurrent;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Reference\Conductors;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Drivers, motors, board outputs, switching parts, mains entry and ends, at their limits. */
final class DriveAndEntryTest extends TestCase
{
    /**
     * @return iterable<string, array{array<string, string|bool>, array<string, string|bool>, Verdict, string}>
     */
    public static function currents(): iterable
    {
        // Motor 2.2 A rms; driver 2 A, bare 1.2 A. 85 % of 2.2 is 1.87.
        yield 'at 85 %' => [['set_current' => '1.87 A'], [], Verdict::Holds, '1.87'];
        yield 'just above' => [['set_current' => '1.9 A'], [], Verdict::Tight, 'runs hot'];
        yield 'more than the driver gives' => [['set_current' => '2.1 A'], [], Verdict::Fails, 'gives 2 A for long'];
        yield 'more than the motor takes' => [
            ['set_current' => '2.5 A', 'continuous_current' => '3 A'],
            [],
            Verdict::Fails,
            'overheats',
        ];
        yield 'bare, and more than bare allows' => [
            ['set_current' => '1.6 A', 'heat_sink' => false],
            [],
            Verdict::Fails,
            'without a heat sink',
        ];
        yield 'bare within bare' => [['set_current' => '1.2 A', 'heat_sink' => false], [], Verdict::Holds, '1.2'];
        yield 'half the torque given away' => [['set_current' => '1 A'], [], Verdict::Tight, 'given away'];
        // 2.2 A stated as peak is 1.556 rms: 1.6 A is too much.
        yield 'a nameplate that says peak' => [
            ['set_current' => '1.6 A'],
            ['current_is_peak' => true],
            Verdict::Fails,
            '1.56',
        ];
        yield 'nobody knows of the heat sink' => [
            ['set_current' => '1.6 A', 'heat_sink' => ''],
            [],
            Verdict::Unproven,
            'heat sink',
        ];
    }

    /**
     * @param  array<string, string|bool>  $driver
     * @param  array<string, string|bool>  $motor
     */
    #[DataProvider('currents')]
    public function test_what_a_driver_is_set_to(array $driver, array $motor, Verdict $verdict, string $says): void
    {
        $file = MotorCurrent::axis($driver, $motor);
        foreach ($file['parts'] as $i => $part) {
            $file['parts'][$i]['specs'] = array_filter($part['specs'], static fn (array $s): bool => $s['value'] !== '');
        }
        $finding = (new SampleBuild($file))->finding('E08/drv');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
    }

    public function test_two_motors_in_parallel_share_one_driver(): void
    {
        $file = MotorCurrent::axis(['set_current' => '2 A', 'continuous_current' => '3 A']);
        [$file['parts'][], $file['needs'][]] = Examples::part('other', 'stepper_motor', [
            'rated_current' => '2.2 A',
            'inductance' => '4 mH',
        ]);
        $file['leads'][] = ['ref' => 'W3', 'from' => 'drv.motor', 'to' => 'other.phases'];

        self::assertSame(
            Verdict::Tight,
            (new SampleBuild($file))->finding('E08/drv')->verdict,
            '1 A each of 2.2: 45 %.',
        );
    }

    /**
     * @return iterable<string, array{string, string, string, string, Verdict}>
     */
    public static function corners(): iterable
    {
        // Handbook E09: V/(2·L·I·steps): 24 V, 4 mH, 1.5 A, 200: 10 rev/s; 48 V, 3.2 mH, 3 A: 12.5 rev/s. 32·√4 = 64 V,
        // 32·√3.2 = 57 V.
        yield '24 V, 4 mH, 1.5 A' => ['24 V', '4 mH', '1.5 A', '600 rpm', Verdict::Holds];
        yield '48 V, 3.2 mH, 3 A' => ['48 V', '3.2 mH', '3 A', '750 rpm', Verdict::Holds];
        // 32·√2 = 45.3 V.
        yield '48 V, 2 mH: above its ceiling' => ['48 V', '2 mH', '3 A', '1200 rpm', Verdict::Tight];
    }

    #[DataProvider('corners')]
    public function test_where_torque_begins_to_fall(
        string $volts,
        string $inductance,
        string $amps,
        string $corner,
        Verdict $verdict,
    ): void {
        $finding = (new SampleBuild(
            MotorCurrent::axis(
                ['set_current' => $amps, 'continuous_current' => '5 A'],
                ['inductance' => $inductance, 'rated_current' => '4 A'],
                $volts,
            ),
        ))->finding('E09/drv');

        self::assertStringContainsString("about {$corner}", str_replace("\u{a0}", ' ', $finding->headline));
        self::assertSame($verdict, $finding->verdict);
    }

    public function test_a_motor_that_says_no_step_angle_makes_two_hundred_steps(): void
    {
        $file = MotorCurrent::axis(
            ['set_current' => '1.5 A', 'continuous_current' => '5 A'],
            ['inductance' => '4 mH', 'rated_current' => '4 A'],
            '24 V',
        );
        foreach ($file['parts'] as $i => $part) {
            unset($file['parts'][$i]['specs']['step_angle']);
        }
        $finding = (new SampleBuild($file))->finding('E09/drv');
        self::assertStringContainsString('about 600 rpm', str_replace("\u{a0}", ' ', $finding->headline));
    }

    public function test_a_winding_heats_by_its_least_inductance_and_falls_off_by_its_most(): void
    {
        $file = MotorCurrent::axis(
            ['set_current' => '3 A', 'continuous_current' => '5 A'],
            ['inductance' => '3 mH', 'rated_current' => '4 A'],
            '52 V',
        );
        foreach ($file['parts'] as $i => $part) {
            $part['family'] === 'stepper_motor' &&
                ($file['parts'][$i]['specs']['inductance'] += ['tolerance' => '20 %']);
        }
        $finding = (new SampleBuild($file))->finding('E09/drv');

        // 32·√3 = 55 V, but 32·√2.4 = 49.6 V; 52 / (2 × 3.6 mH × 3 A × 200) = 12.04 rev/s.
        self::assertSame(Verdict::Tight, $finding->verdict);
        self::assertStringContainsString('about 722 rpm', str_replace("\u{a0}", ' ', $finding->headline));
    }

    /**
     * @return iterable<string, array{string, Verdict}>
     */
    public static function outputs(): iterable
    {
        // An output of 10 A: 80 % is 8 A, 192 W at 24 V.
        yield 'at 80 %' => ['192 W', Verdict::Holds];
        yield 'above 80 %' => ['194 W', Verdict::Tight];
        yield 'at the rating' => ['240 W', Verdict::Tight];
        yield 'above it' => ['242 W', Verdict::Danger];
    }

    #[DataProvider('outputs')]
    public function test_a_board_output_carries_four_fifths_of_its_rating(string $watts, Verdict $verdict): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                Examples::part('module', 'switching_module', ['rated_current' => '10 A']),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => $watts]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'module.in'],
                    ['ref' => 'W2', 'from' => 'module.out', 'to' => 'bed.power'],
                ],
            ],
        );

        self::assertSame($verdict, (new SampleBuild($file))->finding('E07/module.out')->verdict);
    }

    public function test_the_way_into_a_board_carries_the_sum_of_its_outputs(): void
    {
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '30 A']),
                Examples::part('board', 'controller_board', [
                    'own_current' => '0.5 A',
                    'input_terminal_rating' => '20 A',
                    'input_fuse' => '15 A',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '240 W']),
                Examples::part('hot', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '60 W']),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'board.power'],
                    ['ref' => 'W2', 'from' => 'board.h0', 'to' => 'bed.power'],
                    ['ref' => 'W3', 'from' => 'board.h1', 'to' => 'hot.power'],
                ],
            ],
        );
        $file['parts'][1]['ports'] = array_map(
            static fn (string $name): array => [
                'name' => $name,
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => ['rated_current' => ['value' => '15 A', 'evidence' => 'datasheet']],
            ],
            ['h0', 'h1'],
        );
        $finding = (new SampleBuild($file))->finding('E07/board.power');

        // 10 + 2.5 + 0.5 A on a fuse of 15 A: 87 %.
        self::assertSame(Verdict::Tight, $finding->verdict);
        self::assertStringContainsString("13\u{a0}A", $finding->headline);
        self::assertStringContainsString('input fuse', $finding->headline);
    }

    /**
     * @return iterable<string, array{string, bool, bool, string, Verdict, string}>
     */
    public static function switches(): iterable
    {
        yield 'an AC type on direct current' => [
            'AC solid-state',
            false,
            true,
            '240 W',
            Verdict::Danger,
            'never opens',
        ];
        yield 'a DC type on the mains' => ['DC solid-state', true, true, '2300 W', Verdict::Danger, 'half-wave'];
        yield 'contacts on the mains' => ['relay', true, false, '2300 W', Verdict::Holds, 'Contacts'];
        // Handbook E16: 10 A through an AC type: 12 W, 3.3 K/W for 40 K.
        yield 'an AC type of 10 A with its sink' => [
            'AC solid-state',
            true,
            true,
            '2300 W',
            Verdict::Holds,
            '12 W of heat; its heat sink must be at most 3.33 K/W',
        ];
        yield 'and without' => ['AC solid-state', true, false, '2300 W', Verdict::Fails, 'no heat sink'];
        // 24 V over 2.4 Ω and 6 mΩ: 9.975 A, 0.597 W.
        yield 'a transistor of 10 A' => ['transistor', false, false, '240 W', Verdict::Holds, '0.597 W'];
    }

    #[DataProvider('switches')]
    public function test_a_switching_part_suits_its_current(
        string $kind,
        bool $mains,
        bool $sink,
        string $watts,
        Verdict $verdict,
        string $says,
    ): void {
        $source = $mains
            ? Examples::part('psu', 'mains_inlet', ['rated_current' => '16 A'])
            : Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']);
        $file = Examples::file(
            [
                $source,
                Examples::part(
                    'module',
                    'switching_module',
                    ['kind' => $kind, 'rated_current' => '25 A', 'heat_sink' => $sink] +
                        ($kind === 'AC solid-state' ? [] : ['on_resistance' => '6 mΩ']),
                ),
                Examples::part('bed', 'heater', [
                    'rated_voltage' => $mains ? '230 V' : '24 V',
                    'rated_power' => $watts,
                ]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'module.in'],
                    ['ref' => 'W2', 'from' => 'module.out', 'to' => 'bed.power'],
                ],
            ],
        );
        $finding = (new SampleBuild($file))->finding('E16/module');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
    }

    /**
     * @return iterable<string, array{array<string, mixed>, array<string, string|bool>, Verdict, string}>
     */
    public static function entries(): iterable
    {
        $inlet = ['fuse_rating' => '6.3 A', 'switch' => true];
        yield 'all there' => [[], $inlet, Verdict::Holds, 'Fused, switched'];
        yield 'a bond too weak' => [['bond' => '0.11 Ω'], $inlet, Verdict::Danger, "bond of 0.11\u{a0}Ω"];
        yield 'no switch' => [[], ['switch' => false] + $inlet, Verdict::Danger, 'No switch'];
        yield 'no protection at the outlet' => [
            ['site' => ['mains_voltage' => '230 V', 'residual_current_device' => false]],
            $inlet,
            Verdict::Danger,
            'residual-current',
        ];
        yield 'nobody looked at the outlet' => [
            ['site' => ['mains_voltage' => '230 V']],
            $inlet,
            Verdict::Unproven,
            'Not known yet',
        ];
        yield 'an earth thinner than its line' => [['earth' => '0.5 mm²'], $inlet, Verdict::Danger, 'beside a line'];
        yield 'a line nobody says how thick' => [['line' => []], $inlet, Verdict::Unproven, 'conductor size of W1'];
        yield 'a line whose size is a guess' => [
            ['line' => ['size' => '0.75 mm²', 'evidence' => 'assumed']],
            $inlet,
            Verdict::Unproven,
            'conductor size of W1 (assumed)',
        ];
        yield 'a fuse nobody names' => [[], ['switch' => true], Verdict::Unproven, 'a fuse'];
    }

    /**
     * @param  array<string, mixed>  $change
     * @param  array<string, string|bool>  $inlet
     */
    #[DataProvider('entries')]
    public function test_a_mains_entry_has_all_of_it_or_is_a_danger(
        array $change,
        array $inlet,
        Verdict $verdict,
        string $says,
    ): void {
        $file = Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', $inlet),
                Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
            ],
            [
                'site' => $change['site'] ?? ['mains_voltage' => '230 V', 'residual_current_device' => true],
                'leads' => [
                    [
                        'ref' => 'W1',
                        'from' => 'inlet.out',
                        'to' => 'psu.mains',
                        'conductor' => $change['line'] ?? ['size' => '0.75 mm²', 'evidence' => 'datasheet'],
                    ],
                    [
                        'ref' => 'W2',
                        'from' => 'inlet.earth',
                        'to' => 'psu.earth',
                        'conductor' => ['size' => $change['earth'] ?? '0.75 mm²', 'evidence' => 'datasheet'],
                        'bond' => $change['bond'] ?? '0.05 Ω',
                    ],
                ],
            ],
        );
        $finding = (new SampleBuild($file))->finding('E14/inlet');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, $finding->headline);
    }

    public function test_crimps_are_pulled_as_ul_486a_asks(): void
    {
        // UL 486A in pounds-force (from memory): 8, 13, 20, 30, 50, 70.
        foreach ([22 => 8, 20 => 13, 18 => 20, 16 => 30, 14 => 50, 12 => 70] as $gauge => $pounds) {
            self::assertEqualsWithDelta($pounds * 4.448, Conductors::pull("{$gauge} AWG"), 1.0, "AWG {$gauge}");
        }
        self::assertNull(Conductors::pull('0.75 mm²'));
    }
}
