<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\EnergyUse;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Electrical\Rules\MotorCurrent;
use Magpie\Core\Electrical\Rules\Signals;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Firmware\SettingValue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Library\Entry;
use Magpie\Core\Remedies\RemedySearch;
use Magpie\Core\Scope\BriefFigures;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** Small builds from the trade's own cases, each of which was judged wrong once. */
final class TradeCasesTest extends TestCase
{
    /**
     * 24 V heaters on one supply, a lead each: need → watts, and what is said of the lead.
     *
     * @param  array<string, array{string, array<string, mixed>}>  $loads
     * @param  list<array{array<string, mixed>, array<string, mixed>}>  $more  parts with their needs
     * @param  array<string, mixed>  $rest
     */
    private static function heaters(array $loads, array $more = [], array $rest = []): SampleBuild
    {
        $parts = [
            Examples::part('psu', 'power_supply', [
                'output_voltage' => '24 V',
                'rated_current' => '60 A',
                'contact_rating' => '60 A',
            ]),
        ];
        $leads = [];
        foreach ($loads as $need => [$watts, $lead]) {
            $parts[] = Examples::part($need, 'heater', [
                'rated_power' => $watts,
                'rated_voltage' => '24 V',
                'contact_rating' => '60 A',
            ]);
            $leads[] = $lead + [
                'ref' => "W-{$need}",
                'from' => 'psu.out',
                'to' => "{$need}.power",
                'conductor' => ['size' => '6 mm²', 'evidence' => 'datasheet'],
                'length' => '0.5 m',
                'route' => 'fixed',
            ];
        }

        return new SampleBuild(
            Examples::file([...$parts, ...$more], $rest + ['leads' => $leads, 'site' => ['ambient' => '30 °C']]),
        );
    }

    private static function assertSays(Verdict $verdict, string $says, Finding $finding): void
    {
        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, str_replace("\u{a0}", ' ', $finding->headline));
    }

    public function test_two_leads_behind_one_fuse_load_it_together(): void
    {
        $fused = static fn (int $pieces): SampleBuild => self::heaters(
            ['left' => ['288 W', ['protection' => 'F1']], 'right' => ['288 W', ['protection' => 'F1']]],
            [
                [
                    Examples::part('F1', 'fuse', ['rated_current' => '20 A'])[0],
                    ['quantity' => $pieces] + Examples::part('F1', 'fuse', [])[1],
                ],
            ],
        );

        // 12 A each on 20 A: 24 A through one fuse, 12 A through each of two.
        self::assertSays(Verdict::Fails, 'opens in normal use: 24 A', $fused(1)->finding('E13/F1.out'));
        self::assertSame(Verdict::Holds, $fused(2)->finding('E13/F1.out')->verdict);
    }

    public function test_a_lead_behind_another_with_the_same_fuse_is_not_counted_twice(): void
    {
        $build = self::heaters(
            [
                'left' => ['288 W', ['protection' => 'F1', 'from' => 'X.out']],
                'right' => ['96 W', ['protection' => 'F1', 'from' => 'X.out']],
            ],
            [Examples::part('F1', 'fuse', ['rated_current' => '25 A']), Examples::part('X', 'switching_module', [])],
        );
        $file = BuildFile::data($build->build);
        $file['leads'][] = [
            'ref' => 'W0',
            'from' => 'psu.out',
            'to' => 'X.in',
            'protection' => 'F1',
            'conductor' => ['size' => '6 mm²', 'evidence' => 'datasheet'],
            'length' => '0.1 m',
            'route' => 'fixed',
        ];

        // 16 A through W0, of which 12 and 4 go on: 16 of 25 A, not 32.
        self::assertSays(Verdict::Holds, 'carries 16 A', (new SampleBuild($file))->finding('E13/F1.out'));
    }

    public function test_leads_that_end_in_one_plug_load_its_contacts_together(): void
    {
        $plugged = static fn (array $supply): SampleBuild => new SampleBuild(
            array_replace_recursive(
                BuildFile::data(
                    self::heaters(
                        [
                            'left' => ['187 W', ['ends' => [['contact' => 'plug', 'contacts_per_pole' => 1]]]],
                            'right' => ['187 W', ['ends' => [['contact' => 'plug', 'contacts_per_pole' => 1]]]],
                        ],
                        [Examples::part('plug', 'contact_housing', ['contact_rating' => '10 A'])],
                    )->build,
                ),
                ['parts' => [['specs' => Examples::sheet($supply)]]],
            ),
        );

        // 7.8 A each: 15.6 A through the one contact both end on; each of two by itself is within 80 % of 10 A.
        self::assertSays(
            Verdict::Danger,
            'of W-left and W-right together; its rating is 10 A',
            $plugged([])->finding('E02/W-left'),
        );
        self::assertSame(Verdict::Holds, $plugged(['contacts_per_pole' => '2'])->finding('E02/W-right')->verdict);
    }

    public function test_terminals_are_asked_for_only_where_it_matters(): void
    {
        $on = static fn (string $rating): Finding => (new SampleBuild(
            array_replace_recursive(
                BuildFile::data(self::heaters(['left' => ['187 W', []], 'right' => ['187 W', []]])->build),
                ['parts' => [['specs' => Examples::sheet(['contact_rating' => $rating])]]],
            ),
        ))->finding('E02/W-left');

        self::assertSame(Verdict::Holds, $on('20 A')->verdict);
        self::assertSame(Verdict::Unproven, $on('12 A')->verdict);
        self::assertStringContainsString('contacts per pole at psu', implode($on('12 A')->missing));
    }

    public function test_nine_motors_do_not_fit_eight_slots(): void
    {
        $motors = static fn (int $pieces): Finding => (new SampleBuild(
            Examples::file([
                Examples::part('board', 'controller_board', ['driver_slots' => '8']),
                self::pieces($pieces, Examples::part('y', 'stepper_motor', [])),
            ]),
        ))->finding('E12/board');

        self::assertSame(Verdict::Holds, $motors(8)->verdict);
        self::assertSays(Verdict::Fails, '1 get none', $motors(9));
    }

    public function test_motors_of_one_need_share_the_current_of_one_driver(): void
    {
        $on = static function (int $drivers, int $motors): Finding {
            $file = MotorCurrent::axis(['set_current' => '3.6 A', 'continuous_current' => '4 A', 'heat_sink' => true]);
            foreach ($file['needs'] as $i => $need) {
                $file['needs'][$i]['quantity'] = $need['family'] === 'motor_driver' ? $drivers : $motors;
            }

            return (new SampleBuild($file))->finding('E08/drv');
        };

        // 3.6 A into motors of 2.2 A: too much for one, 1.8 A each for two in parallel.
        self::assertSays(Verdict::Fails, '3.6 A through a motor rated 2.2 A', $on(1, 1));
        self::assertSays(Verdict::Holds, '1.8 A through a motor rated 2.2 A', $on(1, 2));
        self::assertSays(Verdict::Fails, '3.6 A through a motor rated 2.2 A', $on(2, 2));
    }

    public function test_two_fans_on_one_output_run_together(): void
    {
        [$board, $need] = Examples::part('board', 'controller_board', []);
        $board['ports'] = [
            [
                'name' => 'fan0',
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => Examples::sheet(['use' => 'fan', 'control' => 'speed']),
            ],
        ];
        $fans = static fn (string $other): SampleBuild => new SampleBuild(
            Examples::file(
                [
                    [$board, $need],
                    Examples::part('hot', 'fan', ['job' => 'hot end']),
                    Examples::part('second', 'fan', ['job' => $other]),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'board.fan0', 'to' => 'hot.power'],
                        ['ref' => 'W2', 'from' => 'board.fan0', 'to' => 'second.power'],
                    ],
                ],
            ),
        );

        self::assertSays(Verdict::Fails, 'shares board.fan0 with second', $fans('part')->finding('E12-fan/hot'));
        // Two of one job on one output is how it is meant, and the board has room for both.
        self::assertSays(Verdict::Holds, 'an output of its own', $fans('hot end')->finding('E12-fan/hot'));
        self::assertSame(Verdict::Holds, $fans('hot end')->finding('E12/board')->verdict);
    }

    public function test_an_ac_solid_state_relay_is_judged_whatever_family_it_is_listed_under(): void
    {
        $on = static fn (string $kind, string $volts): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', []),
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                    Examples::part('k', 'relay', ['kind' => $kind, 'heat_sink' => true]),
                    Examples::part('bed', 'heater', ['rated_power' => '240 W', 'rated_voltage' => $volts]),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => $volts === '24 V' ? 'psu.out' : 'inlet.out', 'to' => 'k.in'],
                        ['ref' => 'W2', 'from' => 'k.out', 'to' => 'bed.power'],
                    ],
                    'site' => ['mains_voltage' => '230 V'],
                ],
            ),
        ))->finding('E16/k');

        self::assertSays(Verdict::Danger, 'never opens again', $on('solid state, AC', '24 V'));
        self::assertSays(Verdict::Holds, 'of heat', $on('solid state, AC', '230 V'));
    }

    public function test_a_solid_state_type_does_not_close_a_torch_circuit(): void
    {
        $with = static fn (string $kind): SampleBuild => new SampleBuild(
            Examples::file(
                [
                    Examples::part('arc', 'arc_source', ['torch_switch' => 'dry contact']),
                    Examples::part('k', 'switching_module', ['kind' => $kind]),
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'k.out', 'to' => 'arc.torch']]],
            ),
        );

        self::assertSays(Verdict::Danger, 'never opens again', $with('AC solid-state')->finding('E16/k'));
        self::assertSays(Verdict::Fails, 'wants contacts', $with('DC solid-state')->finding('E16/k'));
        self::assertSame(Verdict::Holds, $with('relay')->finding('E16/k')->verdict);
        foreach (['AC solid-state', 'DC solid-state', 'transistor'] as $kind) {
            self::assertSays(Verdict::Fails, 'has no contacts', $with($kind)->finding('E11/W1'));
        }
        self::assertSays(Verdict::Holds, 'A contact closes', $with('relay')->finding('E11/W1'));
    }

    public function test_what_does_not_say_its_kind_is_no_contact_yet(): void
    {
        foreach (['relay', 'switching_module'] as $family) {
            $finding = (new SampleBuild(
                Examples::file(
                    [
                        Examples::part('arc', 'arc_source', ['torch_switch' => 'dry contact']),
                        Examples::part('k', $family, []),
                    ],
                    ['leads' => [['ref' => 'W1', 'from' => 'k.out', 'to' => 'arc.torch']]],
                ),
            ))->finding('E11/W1');

            self::assertSame([Verdict::Unproven, ['kind of k']], [$finding->verdict, $finding->missing]);
        }
    }

    public function test_every_hot_end_counts_for_the_heater_in_one_of_them(): void
    {
        $ends = static fn (string ...$limits): Finding => (new SampleBuild(
            Examples::file([
                Examples::part('h', 'heater', ['place' => 'hot end', 'target' => '260 °C']),
                ...array_map(
                    static fn (string $limit, int $i): array => Examples::part("hot{$i}", 'hot_end', [
                        'lined' => true,
                        'lining_limit' => $limit,
                    ]),
                    $limits,
                    array_keys($limits),
                ),
            ]),
        ))->finding('T03/h');

        self::assertSame(Verdict::Holds, $ends('280 °C', '300 °C')->verdict);
        self::assertSame(Verdict::Danger, $ends('240 °C', '245 °C')->verdict);
        self::assertSame(Verdict::Unproven, $ends('280 °C', '240 °C')->verdict);
    }

    public function test_that_an_input_is_protected_was_measured_is_no_test_of_the_pair(): void
    {
        $into = static fn (array $input): Finding => (new SampleBuild(
            array_replace_recursive(Signals::probe('push-pull', '24 V', ['input' => 'protected']), [
                'parts' => [1 => ['ports' => [['specs' => $input]]]],
            ]),
        ))->finding('E11/W2');
        $measured = static fn (string|bool $value): array => ['value' => $value, 'evidence' => 'measured'];

        self::assertSame(Verdict::Unproven, $into(['input' => $measured('protected')])->verdict);
        self::assertSame(Verdict::Holds, $into(['tested' => $measured(true)])->verdict);
        self::assertSame(Verdict::Fails, $into(['tested' => $measured(false)])->verdict);
    }

    public function test_channels_behind_a_link_todays_firmware_does_not_speak_do_not_count(): void
    {
        $head = static fn (string $support): Finding => (new SampleBuild(
            Examples::file([
                Examples::part('board', 'controller_board', ['driver_slots' => '1']),
                Examples::part('head', 'bus_module', ['drivers' => '1', 'support' => $support]),
                Examples::part('x', 'stepper_motor', []),
                Examples::part('e', 'stepper_motor', []),
            ]),
        ))->finding('E12/board');

        self::assertSame(Verdict::Holds, $head('today')->verdict);
        self::assertSays(Verdict::Fails, '1 get none', $head('with other firmware'));
    }

    public function test_a_lead_nobody_drew_is_not_screened(): void
    {
        $with = static fn (array $leads): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('drive', 'spindle_drive', []),
                    Examples::part('spindle', 'spindle', []),
                    Examples::part('box', 'cabinet', ['material' => 'steel', 'earthed' => true]),
                ],
                ['leads' => $leads],
            ),
        ))->finding('E18/drive');
        $lead = static fn (string $screen): array => [
            ['ref' => 'W1', 'from' => 'spindle.power', 'to' => 'drive.motor', 'conductor' => ['screen' => $screen]],
        ];

        self::assertSame(Verdict::Unproven, $with([])->verdict);
        // Drawn from either side.
        self::assertSays(Verdict::Fails, 'W1 has no screen', $with($lead('none')));
        self::assertSame(Verdict::Holds, $with($lead('both ends'))->verdict);
    }

    public function test_settings_agree_by_what_they_mean(): void
    {
        foreach (
            [
                ['280 mm', '280', true],
                ['280 mm', '28 cm', true],
                ['280 mm', '280 in', false],
                ['280 mm', '11 in', false],
                ['280 mm', '281 mm', false],
                ['1.5 A', '1500 mA', true],
                ['80', '80.00', true],
                ['80', '81', false],
                ['present', 'enabled', true],
                ['present', 'ON', true],
                ['present', 'yes', true],
                ['present', 'no', false],
                ['open', 'off', true],
                ['open', 'set', false],
                ['locked out', 'locked', true],
                ['locked out', 'unlocked', false],
                ['switch', 'Switch', true],
                ['switch', 'sensorless', false],
            ] as [$wants, $value, $same]
        ) {
            self::assertSame($same, SettingValue::suits($value, $wants), "{$value} for {$wants}");
        }
        self::assertTrue(SettingValue::suits('250 °C', '260 °C', true));
        self::assertTrue(SettingValue::suits('260', '260 °C', true));
        self::assertFalse(SettingValue::suits('300 °C', '260 °C', true));
        self::assertFalse(SettingValue::suits('250 °C', '260 °C'));
    }

    public function test_a_setting_under_a_name_nothing_asks_for_is_said(): void
    {
        $finding = (new SampleBuild(
            Examples::file(
                [Examples::part('bed', 'heater', [])],
                [
                    'settings' => [
                        ['ref' => 'S1', 'kind' => 'setting', 'about' => 'firmware.runawya', 'value' => 'present'],
                    ],
                ],
            ),
        ))->finding('E21/unknown');

        self::assertSame(Verdict::Unproven, $finding->verdict);
        self::assertStringContainsString(
            'the nearest that is asked for is firmware.runaway',
            implode($finding->missing),
        );
    }

    /**
     * A spindle on its drive on a 230 V outlet, with what a scenario names.
     *
     * @param  array<string, string>  $scenario
     * @param  array<string, string>  $drive
     */
    private static function spindle(array $scenario, array $drive = [], string $watts = '800 W'): SampleBuild
    {
        return new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', ['rated_current' => '10 A']),
                    Examples::part(
                        'drive',
                        'spindle_drive',
                        $drive + [
                            'rated_power' => '1500 W',
                            'efficiency' => '95 %',
                            'power_factor' => '0.7',
                            'rated_voltage' => '230 V',
                        ],
                    ),
                    Examples::part('spindle', 'spindle', [
                        'rated_power' => $watts,
                        'efficiency' => '80 %',
                        'rated_voltage' => '220 V',
                    ]),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'drive.mains'],
                        ['ref' => 'W2', 'from' => 'drive.motor', 'to' => 'spindle.power'],
                    ],
                    'scenarios' => [['ref' => 'cut', 'name' => 'Cut', 'loads' => $scenario]],
                    'site' => ['mains_voltage' => '230 V', 'outlet' => '13 A', 'other_load' => '0 A'],
                ],
            ),
        );
    }

    public function test_a_spindle_drive_draws_what_its_spindle_asks(): void
    {
        // 800 W at the shaft over 0.8, 0.95 and 0.7 are 1504 VA: 6.54 A at 230 V, whichever of the two a scenario names.
        foreach ([['spindle' => '100 %'], ['drive' => '100 %']] as $named) {
            self::assertSays(Verdict::Holds, 'Cut: 6.54 A', self::spindle($named)->finding('E15/cut'));
        }
        self::assertSays(Verdict::Holds, 'Cut: 3.27 A', self::spindle(['spindle' => '50 %'])->finding('E15/cut'));
        // A tenth more on the spindle's plate: 1654 VA.
        $more = BuildFile::data(self::spindle(['spindle' => '100 %'])->build);
        $more['parts'][2]['specs']['rated_power'] += ['tolerance' => '10 %'];
        self::assertSays(Verdict::Holds, 'Cut: 7.19 A', (new SampleBuild($more))->finding('E15/cut'));
        // Never more than the drive's own rating, whatever hangs on it.
        self::assertSays(
            Verdict::Tight,
            'Cut: 12.3 A',
            self::spindle(['drive' => '100 %'], [], '5 kW')->finding('E15/cut'),
        );
    }

    public function test_a_driver_draws_the_most_its_sheet_says_and_two_thirds_of_its_setting_where_it_says_nothing(): void
    {
        $of = static fn (array $sheet): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '10 A']),
                    [
                        ['specs' => Examples::sheet(['set_current' => '3 A']) + $sheet] +
                        Examples::part('drv', 'motor_driver', [])[0],
                        Examples::part('drv', 'motor_driver', [])[1],
                    ],
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drv.power']]],
            ),
        ))->finding('E05/psu.out');

        $stated = ['value' => '4 A', 'evidence' => 'datasheet', 'tolerance' => '25 %'];
        self::assertSays(Verdict::Holds, '5 A of 10 A', $of(['supply_current' => $stated]));
        self::assertSays(Verdict::Holds, '2 A of 10 A', $of([]));
    }

    public function test_a_spindle_behind_its_drive_is_proven_by_it(): void
    {
        self::assertSays(
            Verdict::Holds,
            'drive gives at most 230 V',
            self::spindle(['drive' => '100 %'])->finding('E06/spindle.power'),
        );
    }

    public function test_what_motors_push_back_is_no_matter_to_a_fan(): void
    {
        $on = static fn (string $family): Verdict => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                    Examples::part('drv', 'motor_driver', ['min_voltage' => '8 V', 'max_voltage' => '45 V']),
                    Examples::part('load', $family, ['min_voltage' => '12 V', 'max_voltage' => '25.2 V']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'drv.power'],
                        ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'load.power'],
                    ],
                ],
            ),
        ))->finding('E06/load.power')->verdict;

        // 24 V are 95.2 % of what it stands.
        self::assertSame(Verdict::Danger, $on('bus_module'));
        self::assertSame(Verdict::Holds, $on('fan'));
    }

    public function test_a_supply_at_the_end_of_a_long_thin_lead_collapses(): void
    {
        $over = static fn (string $length): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                    Examples::part('down', 'dc_converter', ['output_voltage' => '5 V', 'efficiency' => '90 %']),
                    Examples::part('host', 'host_computer', ['rated_current' => '9 A']),
                ],
                [
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'psu.out',
                            'to' => 'down.in',
                            'conductor' => ['size' => '28 AWG', 'evidence' => 'datasheet'],
                            'length' => $length,
                        ],
                        ['ref' => 'W2', 'from' => 'down.out', 'to' => 'host.power'],
                    ],
                ],
            ),
        ))->finding('E04/down.in');

        // 50 W over 2 × L × 0.2502 Ω/m (28 AWG, stranded, 30 °C): 24²/(4 × 50) = 2.88 Ω is the most there may be, 5.755 m.
        self::assertSays(Verdict::Fails, 'collapses before down', $over('5.8 m'));
        self::assertSame(Verdict::Fails, $over('5.7 m')->verdict);
        self::assertStringNotContainsString('collapses', $over('5.7 m')->headline);
    }

    public function test_a_lead_inside_a_warm_cabinet_is_judged_by_the_air_there(): void
    {
        $in = static fn (array $zones): SampleBuild => new SampleBuild(
            ['zones' => $zones] +
                BuildFile::data(
                    self::heaters([
                        'bed' => [
                            '298 W',
                            ['conductor' => ['size' => '2.5 mm²', 'evidence' => 'datasheet'], 'route' => null],
                        ],
                    ])->build,
                ),
        );
        $box = ['ref' => 'box', 'name' => 'Cabinet', 'kind' => 'cabinet', 'holds' => ['psu', 'bed']];

        // 12.3 A on 2.5 mm²: 17.4 A at 40 °C (B2) are 20 A at 30 °C and 14.3 A at 50 °C, of which 80 % are 11.4 A.
        self::assertSame(Verdict::Holds, $in([])->finding('E03/W-bed')->verdict);
        self::assertSays(
            Verdict::Tight,
            'may carry 14.3 A here',
            $in([$box + ['temperature' => '50 °C', 'evidence' => 'measured']])->finding('E03/W-bed'),
        );
        self::assertContains('hottest air in Cabinet', $in([$box])->finding('E03/W-bed')->missing);
    }

    public function test_a_fan_behind_a_selector_gets_the_selectors_volts(): void
    {
        [$board, $need] = Examples::part('board', 'controller_board', []);
        $board['ports'] = [
            [
                'name' => 'fan0',
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => Examples::sheet(['use' => 'fan', 'bank' => 'fans']),
            ],
        ];
        $set = static fn (?string $volts): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                    [$board, $need],
                    Examples::part('fan', 'fan', ['min_voltage' => '4.5 V', 'max_voltage' => '5.5 V']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'board.power'],
                        ['ref' => 'W2', 'from' => 'board.fan0', 'to' => 'fan.power'],
                    ],
                    'settings' => $volts === null
                            ? []
                            : [['ref' => 'S1', 'kind' => 'link', 'about' => 'bank.board.fans', 'value' => $volts]],
                ],
            ),
        ))->finding('E06/fan.power');

        self::assertSame(Verdict::Unproven, $set(null)->verdict);
        self::assertSays(Verdict::Holds, 'Selector fans of board holds 5 V', $set('5 V'));
        self::assertSays(Verdict::Danger, 'Selector fans of board holds 12 V', $set('12'));
    }

    public function test_a_supply_is_judged_by_what_the_meter_read(): void
    {
        $read = static fn (?string $watts): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => '24 V',
                        'rated_current' => '10 A',
                        'efficiency' => '90 %',
                    ]),
                    Examples::part('bed', 'heater', ['rated_power' => '120 W', 'rated_voltage' => '24 V']),
                ],
                [
                    'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']],
                    'scenarios' => [
                        array_filter([
                            'ref' => 'heat',
                            'name' => 'Heat',
                            'loads' => ['bed' => '100 %'],
                            'measured' => $watts,
                        ]),
                    ],
                ],
            ),
        ))->finding('E05/psu.out');

        self::assertSays(Verdict::Holds, '5 A of 10 A', $read(null));
        // 300 W at the wall are 270 W at the output: 11.25 A, whatever the sheets say.
        self::assertSays(Verdict::Fails, '11.3 A of 10 A', $read('300 W'));
        self::assertSays(Verdict::Holds, '5 A of 10 A', $read('50 W'));
    }

    public function test_a_bed_on_the_mains_wants_earth_and_a_switching_device(): void
    {
        $bed = static function (array $sheet, bool $switched): Finding {
            $lead = ['conductor' => ['size' => '1 mm²', 'evidence' => 'datasheet']];

            return (new SampleBuild(
                Examples::file(
                    [
                        Examples::part('inlet', 'mains_inlet', ['fuse_rating' => '6.3 A', 'switch' => true]),
                        Examples::part('k', 'switching_module', ['kind' => 'AC solid-state']),
                        Examples::part('bed', 'heater', $sheet + ['thermal_fuse' => '140 °C']),
                    ],
                    [
                        'site' => ['mains_voltage' => '230 V', 'residual_current_device' => true],
                        'leads' => $switched
                            ? [
                                $lead + ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'k.in'],
                                $lead + ['ref' => 'W2', 'from' => 'k.out', 'to' => 'bed.power'],
                            ]
                            : [$lead + ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'bed.power']],
                    ],
                ),
            ))->finding('E14/inlet');
        };

        self::assertSame(Verdict::Holds, $bed(['earthed' => true], true)->verdict);
        self::assertSays(Verdict::Danger, 'No earth to the plate of bed', $bed(['earthed' => false], true));
        self::assertSays(Verdict::Danger, 'No switching device on the line to bed', $bed(['earthed' => true], false));
        self::assertSame(Verdict::Unproven, $bed([], true)->verdict);
    }

    public function test_no_fuse_for_vehicles_is_offered_for_the_mains(): void
    {
        $build = (new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', []),
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => '24 V',
                        'rated_current' => '10 A',
                        'efficiency' => '90 %',
                        'power_factor' => '0.95',
                        'input_voltage' => '90 V to 264 V',
                    ]),
                    Examples::part('bed', 'heater', ['rated_power' => '200 W', 'rated_voltage' => '24 V']),
                ],
                [
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'inlet.out',
                            'to' => 'psu.mains',
                            'conductor' => [
                                'size' => '1.5 mm²',
                                'evidence' => 'datasheet',
                                'insulation' => 'PVC 300/500 V',
                            ],
                        ],
                        ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'bed.power'],
                    ],
                    'site' => ['mains_voltage' => '230 V', 'ambient' => '30 °C'],
                ],
            ),
        ))->build;
        $fuse = static fn (string $kind, string $volts): Entry => LibraryFile::read([
            'part' => [
                'ref' => $kind,
                'family' => 'fuse',
                'name' => "A {$kind} fuse",
                'specs' => Examples::sheet(['kind' => $kind, 'rated_current' => '10 A', 'voltage_rating' => $volts]),
            ],
        ]);
        $standing = Standing::of(Rules::inspector(), $build);
        $offered = (new RemedySearch($standing, [$fuse('blade', '58 V'), $fuse('glass', '250 V')]))->for(
            $standing->findings()['E13/inlet.out'],
        );

        self::assertSame(['A glass fuse in W1, at inlet'], array_column($offered['remedies'], 'says'));
    }

    public function test_contacts_for_alternating_current_need_not_break_direct(): void
    {
        $stop = static fn (string $volts, array $sheet): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => $volts, 'rated_current' => '10 A']),
                    Examples::part('stop', 'stop_button', $sheet),
                ],
                ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in']]],
            ),
        ))->finding('E26/stop');

        self::assertSame(Verdict::Unproven, $stop('48 V', ['voltage_rating' => '400 V'])->verdict);
        self::assertSame(Verdict::Holds, $stop('48 V', ['dc_voltage' => '125 V'])->verdict);
        self::assertSame(Verdict::Danger, $stop('48 V', ['dc_voltage' => '30 V'])->verdict);
    }

    public function test_what_a_heater_and_a_sensor_sit_in_decides_their_limits(): void
    {
        $in = static fn (?string $seat): SampleBuild => new SampleBuild(
            Examples::file([
                Examples::part('lined', 'hot_end', ['lined' => true, 'lining_limit' => '240 °C']),
                Examples::part('metal', 'hot_end', ['lined' => false, 'top_temperature' => '300 °C']),
                self::seated($seat, Examples::part('h', 'heater', ['place' => 'hot end', 'target' => '260 °C'])),
                self::seated($seat, Examples::part('t', 'thermistor', ['highest_temperature' => '290 °C'])),
            ]),
        );
        $top = static function (SampleBuild $build): ?string {
            foreach ((new SettingsAudit(new Survey($build->build)))->lines() as $line) {
                if ($line->key === 'thermistor.t.top') {
                    return $line->wants;
                }
            }

            return null;
        };

        self::assertSame(Verdict::Danger, $in('lined')->finding('T03/h')->verdict);
        self::assertSame(Verdict::Holds, $in('metal')->finding('T03/h')->verdict);
        self::assertSame(Verdict::Unproven, $in(null)->finding('T03/h')->verdict);
        self::assertSame('240 °C', $top($in('lined')));
        self::assertSame('290 °C', $top($in('metal')));
        // Where nobody has said what it sits in, the weakest of all counts.
        self::assertSame('240 °C', $top($in(null)));
    }

    public function test_a_driver_in_a_slot_takes_that_slot_without_a_lead(): void
    {
        [$board, $need] = Examples::part('board', 'controller_board', []);
        $board['ports'] = [
            ['name' => 'x', 'kind' => 'signal', 'specs' => Examples::sheet(['use' => 'motor'])],
            ['name' => 'y', 'kind' => 'signal', 'specs' => Examples::sheet(['use' => 'motor'])],
        ];
        $ports = PortAllocation::of(
            new Survey(
                (new SampleBuild(
                    Examples::file([
                        [$board, $need],
                        self::seated('board.y', Examples::part('drv', 'motor_driver', [])),
                    ]),
                ))->build,
            ),
        );

        self::assertSame(['drv' => 'board.y'], $ports->matching->found);
    }

    public function test_a_seat_that_cannot_be_is_refused(): void
    {
        foreach (
            ['nothing' => 'there is no need', 'psu' => 'does not sit in', 'h' => 'does not sit in'] as $seat => $says
        ) {
            try {
                new SampleBuild(
                    Examples::file([
                        Examples::part('psu', 'power_supply', []),
                        self::seated($seat, Examples::part('h', 'heater', [])),
                    ]),
                );
                self::fail("{$seat} was taken.");
            } catch (CannotReadBuildFile $e) {
                self::assertStringContainsString($says, $e->getMessage());
                self::assertSame('/needs/1/sits_in', $e->pointer);
            }
        }
    }

    public function test_a_setting_that_is_planned_changes_nothing_until_it_is_read_back(): void
    {
        $with = static fn (array $setting): Finding => (new SampleBuild(
            Examples::file(
                [Examples::part('bed', 'heater', [])],
                [
                    'settings' => [
                        ['ref' => 'S1', 'kind' => 'setting', 'about' => 'firmware.runaway'] + $setting,
                        ['ref' => 'S2', 'kind' => 'setting', 'about' => 'heater.bed.crossed', 'value' => 'tried'],
                    ],
                ],
            ),
        ))->finding('E21/firmware');

        self::assertSame(Verdict::Danger, $with(['value' => 'absent'])->verdict);
        self::assertSame(Verdict::Unproven, $with(['value' => 'absent', 'planned' => 'present'])->verdict);
        self::assertSame(Verdict::Danger, $with(['value' => 'absent', 'planned' => 'off'])->verdict);
        self::assertSame(Verdict::Holds, $with(['value' => 'on', 'planned' => 'present'])->verdict);
    }

    /**
     * @param  array{array<string, mixed>, array<string, mixed>}  $part
     * @return array{array<string, mixed>, array<string, mixed>} the same, sitting in something
     */
    private static function seated(?string $seat, array $part): array
    {
        return [$part[0], array_filter(['sits_in' => $seat]) + $part[1]];
    }

    public function test_what_comes_out_exactly_at_a_limit_is_no_cure(): void
    {
        // 10 A on a fuse of 8 A: one of 10 A would carry just what it may.
        foreach (['10 A' => false, '16 A' => true] as $rating => $offered) {
            $build = self::heaters(
                ['bed' => ['240.001 W', ['protection' => 'F1', 'length' => '1 mm']]],
                [
                    Examples::part('F1', 'fuse', ['rated_current' => '8 A']),
                    Examples::part('F2', 'fuse', ['rated_current' => $rating]),
                ],
            )->build;
            $standing = Standing::of(Rules::inspector(), $build);
            $found = (new RemedySearch($standing, []))->for($standing->findings()['E13/F1.out'])['remedies'];
            $says = array_filter(array_column($found, 'says'), static fn (string $s): bool => str_contains($s, 'F2'));
            self::assertSame($offered, $says !== [], $rating);
        }
    }

    public function test_scope_and_the_mains_check_reckon_a_chosen_spindle_alike(): void
    {
        $file = BuildFile::data(self::spindle(['spindle' => '100 %'])->build);
        $build = (new SampleBuild(['brief' => ['process' => 'cutting', 'spindle_power' => '800 W']] + $file))->build;
        foreach ((new BriefFigures($build))->toArray() as $figure) {
            if ($figure['key'] === 'spindle') {
                self::assertStringContainsString("takes about 6.54\u{a0}A", $figure['says']);
            }
        }
        self::assertSays(Verdict::Holds, 'Cut: 6.54 A', self::spindle(['spindle' => '100 %'])->finding('E15/cut'));
    }

    public function test_a_module_is_advised_for_a_board_alone(): void
    {
        $through = static fn (string $family, array $sheet): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '60 A']),
                    Examples::part('x', $family, $sheet),
                    Examples::part('bed', 'heater', ['rated_power' => '480 W', 'rated_voltage' => '24 V']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'x.in'],
                        ['ref' => 'W2', 'from' => 'x.out', 'to' => 'bed.power'],
                    ],
                ],
            ),
        ))->finding('E07/x.out');

        foreach (
            [['fuse', ['rated_current' => '10 A']], ['stop_button', ['rated_current' => '10 A']]] as [$family, $sheet]
        ) {
            self::assertSays(Verdict::Danger, 'One that is rated for more', $through($family, $sheet));
        }
    }

    public function test_no_current_that_is_known_is_not_one_of_nought(): void
    {
        $build = self::heaters(['bed' => ['240 W', []]])->build;
        $file = BuildFile::data($build);
        unset($file['parts'][1]['specs']['rated_power']);
        $finding = (new SampleBuild($file))->finding('E03/W-bed');

        self::assertSame(Verdict::Unproven, $finding->verdict);
        self::assertStringNotContainsString("0\u{a0}A", $finding->headline);
        self::assertContains('rated power of bed', $finding->missing);
    }

    public function test_what_warms_the_leads_is_paid_for_too(): void
    {
        $build = (new SampleBuild(
            Examples::file(
                [
                    Examples::part('inlet', 'mains_inlet', []),
                    Examples::part('psu', 'power_supply', [
                        'output_voltage' => '24 V',
                        'efficiency' => '90 %',
                        'power_factor' => '0.95',
                    ]),
                    Examples::part('bed', 'heater', ['rated_power' => '240 W', 'rated_voltage' => '24 V']),
                ],
                [
                    'leads' => [
                        ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                        [
                            'ref' => 'W2',
                            'from' => 'psu.out',
                            'to' => 'bed.power',
                            'conductor' => ['size' => '1.5 mm²', 'evidence' => 'datasheet'],
                            'length' => '5 m',
                        ],
                    ],
                    'site' => ['ambient' => '20 °C', 'mains_voltage' => '230 V'],
                ],
            ),
        ))->build;
        $circuits = new Circuits($build);
        $use = EnergyUse::of($circuits, $circuits->scenarios()[0]);

        // 2.4 Ω behind 2 × 5 m × 13.3 mΩ/m: 24²/2.533 Ω are 227.4 W at the supply, 252.7 W at the wall.
        self::assertEqualsWithDelta(24 ** 2 / (2.4 + 0.133) / 0.9, $use->average->in('W'), 0.01);
    }

    public function test_the_figure_a_builder_asks_for_stands_beside_the_verdict(): void
    {
        $finding = self::heaters(['bed' => ['240 W', ['length' => '1 mm']]])->finding('E05/psu.out');

        // 60 A at 24 V, of which 10 A are taken.
        self::assertEqualsWithDelta(1440, $finding->figures['usable'][1]->in('W'), 1e-9);
        self::assertEqualsWithDelta(50, $finding->figures['left'][1]->in('A'), 0.01);
        self::assertSame(['usable', 'left'], array_column($finding->toArray()['figures'], 'key'));
    }

    /**
     * @param  array{array<string, mixed>, array<string, mixed>}  $part
     * @return array{array<string, mixed>, array<string, mixed>} the same, so many times
     */
    private static function pieces(int $pieces, array $part): array
    {
        return [$part[0], ['quantity' => $pieces] + $part[1]];
    }

    public function test_an_output_that_limits_itself_protects_what_is_behind_it(): void
    {
        $board = static function (?string $limit): SampleBuild {
            $part = Examples::part('board', 'controller_board', ['input_fuse' => '20 A']);
            $part[0]['ports'] = [
                [
                    'name' => 'fan',
                    'kind' => 'outlet',
                    'fed_from' => 'power',
                    'specs' => Examples::sheet($limit === null ? [] : ['limits_at' => $limit]),
                ],
            ];

            return new SampleBuild(
                Examples::file(
                    [
                        Examples::part('psu', 'power_supply', ['output_voltage' => '24 V', 'rated_current' => '20 A']),
                        $part,
                        Examples::part('fan', 'fan', ['rated_current' => '0.5 A', 'rated_voltage' => '24 V']),
                    ],
                    [
                        'leads' => [
                            ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'board.power'],
                            [
                                'ref' => 'W2',
                                'from' => 'board.fan',
                                'to' => 'fan.power',
                                'length' => '1 m',
                                'conductor' => ['size' => '0.5 mm²', 'evidence' => 'datasheet'],
                            ],
                        ],
                    ],
                ),
            );
        };

        $this->assertSame(Verdict::Danger, $board(null)->finding('E13/board.power')->verdict);
        $finding = $board('2 A')->finding('E13/board.fan');
        $this->assertSame(Verdict::Holds, $finding->verdict);
        $this->assertStringContainsString('limit (board)', $finding->headline);
        $this->assertSame(Verdict::Danger, $board('30 A')->finding('E13/board.fan')->verdict);
    }

    public function test_a_coil_behind_a_stop_gets_what_the_supply_holds(): void
    {
        foreach (['24 V' => Verdict::Holds, '12 V' => Verdict::Fails] as $coil => $verdict) {
            $sample = new SampleBuild(
                Examples::file(
                    [
                        Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                        Examples::part('stop', 'stop_button', ['rated_current' => '6 A']),
                        Examples::part('k', 'relay', [
                            'coil_voltage' => $coil,
                            'coil_current' => '20 mA',
                            'max_voltage' => '250 V',
                        ]),
                    ],
                    [
                        'leads' => [
                            ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                            ['ref' => 'W2', 'from' => 'stop.out', 'to' => 'k.coil'],
                            ['ref' => 'W3', 'from' => 'psu.out', 'to' => 'k.in'],
                        ],
                    ],
                ),
            );

            $this->assertSame($verdict, $sample->finding('E11/W2')->verdict, $coil);
            // Nor is a contact asked for a lowest voltage.
            $this->assertSame(Verdict::Holds, $sample->finding('E06/k.in')->verdict);
        }
    }
}
