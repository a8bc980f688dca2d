<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Rules\Signals;
use Magpie\Core\Electrical\Rules\SpindleOnDrive;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Format\Reading;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Remedies\RemedySearch;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SignalsAndSettingsTest extends TestCase
{
    /**
     * Levels by the sum of what each end stands; a protected input is the trap the handbook names (E11).
     *
     * @return iterable<string, array{string, string, array<string, string|bool>, Verdict, string}>
     */
    public static function probes(): iterable
    {
        yield '24 V into 3.3 V' => ['push-pull', '24 V', [], Verdict::Danger, "puts 24\u{a0}V on"];
        yield '24 V into an isolated input nobody says what of' => [
            'sourcing',
            '24 V',
            ['input' => 'isolated'],
            Verdict::Unproven,
            'highest voltage of',
        ];
        yield '24 V into an isolated input for up to 30 V' => [
            'sourcing',
            '24 V',
            ['input' => 'isolated', 'max_voltage' => '30 V'],
            Verdict::Holds,
            'which stands',
        ];
        yield '24 V into an isolated input for 5 V' => [
            'sourcing',
            '24 V',
            ['input' => 'isolated', 'max_voltage' => '6 V'],
            Verdict::Danger,
            'which stands',
        ];
        yield '24 V into a protected input that is said to stand 12 V' => [
            'sourcing',
            '24 V',
            ['input' => 'protected', 'max_voltage' => '12 V', 'tested' => true],
            Verdict::Danger,
            'which stands',
        ];
        yield '24 V into a protected input waits for a test' => [
            'sourcing',
            '24 V',
            ['input' => 'protected'],
            Verdict::Unproven,
            'a test of this pair',
        ];
        yield '5 V into a 5 V input' => ['push-pull', '5 V', ['max_voltage' => '5.5 V'], Verdict::Holds, "5\u{a0}V on"];
        yield 'what an input is said to stand is all it stands' => [
            'push-pull',
            '5.4 V',
            ['max_voltage' => '5 V'],
            Verdict::Danger,
            'which stands',
        ];
        yield 'a sinking output brings no level' => ['sinking', '24 V', [], Verdict::Holds, 'pull-up brings it back'];
        yield 'one with a pull-up of its own lifts the input to its supply' => [
            'sinking',
            '24 V',
            [],
            Verdict::Danger,
            "puts 24\u{a0}V on board, port probe, which stands 3.63\u{a0}V. It burns. An isolating stage, or a sensor without",
            true,
        ];
        yield 'unless the input stands it' => ['sinking', '24 V', ['max_voltage' => '30 V'], Verdict::Holds, 'its own', true];
        yield 'and brings it back where the input has none' => [
            'sinking',
            '3.3 V',
            ['pull_up' => false],
            Verdict::Holds,
            'its own pull-up brings it back',
            true,
        ];
        yield 'where nobody says whether it has one, it is to be measured' => [
            'sinking',
            '24 V',
            [],
            Verdict::Unproven,
            'a meter from its open output to common shows it',
            null,
        ];
        yield 'on a low supply it may have one' => ['sinking', '3.3 V', [], Verdict::Holds, 'brings it back', null];
        yield 'nor does it matter to an isolated input' => [
            'sinking',
            '24 V',
            ['input' => 'isolated'],
            Verdict::Holds,
            'brings it back',
            null,
        ];
        yield 'what only pulls up never leaves an input with a pull-up' => [
            'sourcing',
            '3.3 V',
            [],
            Verdict::Fails,
            'it reads as high for ever',
        ];
        yield 'nor one with nothing to bring it down' => [
            'sourcing',
            '3.3 V',
            ['pull_up' => false, 'pull_down' => false],
            Verdict::Fails,
            'brings board, port probe back down',
        ];
        yield 'nobody says what brings it down' => [
            'sourcing',
            '3.3 V',
            ['pull_up' => false],
            Verdict::Unproven,
            'whether board, port probe has a pull-down',
        ];
        yield 'a pull-down does' => ['sourcing', '3.3 V', ['pull_up' => false, 'pull_down' => true], Verdict::Holds, 'on board'];
        yield 'though it does, too much burns' => [
            'sourcing',
            '24 V',
            ['pull_up' => false, 'pull_down' => true],
            Verdict::Danger,
            'or a sensor that sinks',
        ];
        yield 'without a pull-up it never rises' => [
            'sinking',
            '24 V',
            ['pull_up' => false],
            Verdict::Fails,
            'back up',
        ];
        yield 'a plain contact likewise' => ['contact', '24 V', ['pull_up' => false], Verdict::Fails, 'back up'];
    }

    /**
     * @param  array<string, string|bool>  $input
     */
    #[DataProvider('probes')]
    public function test_a_probe_on_an_input(
        string $output,
        string $volts,
        array $input,
        Verdict $verdict,
        string $says,
        ?bool $lifts = false,
    ): void {
        $finding = (new SampleBuild(Signals::probe($output, $volts, $input, $lifts)))->finding('E11/W2');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, $finding->headline);
    }

    public function test_two_spindles_on_one_drive_take_twice_its_current(): void
    {
        $verdict = static function (int $spindles, int $drives): Verdict {
            $file = BuildFile::data((new SpindleOnDrive)->examples()->holding());
            foreach ($file['needs'] as $i => $need) {
                $file['needs'][$i]['quantity'] = $need['ref'] === 'drive' ? $drives : $spindles;
            }

            return (new SampleBuild($file))->finding('E22/drive')->verdict;
        };
        // 5 A each, where a drive gives 7.
        self::assertSame(
            [Verdict::Holds, Verdict::Fails, Verdict::Holds, Verdict::Fails],
            [$verdict(1, 1), $verdict(2, 1), $verdict(2, 2), $verdict(3, 2)],
        );
    }

    public function test_coils_that_share_an_output_take_what_all_of_them_take(): void
    {
        [$part, $need] = Examples::part('board', 'controller_board', []);
        foreach (['out0', 'out1'] as $name) {
            $part['ports'][] = [
                'name' => $name,
                'kind' => 'signal',
                'specs' => Examples::sheet(['voltage' => '24 V', 'rated_current' => '50 mA']),
            ];
        }
        $relay = Examples::part('relay', 'relay', ['coil_voltage' => '24 V', 'coil_current' => '30 mA']);
        $on = static function (int $pieces, array ...$more) use ($part, $need, $relay): Finding {
            $relay[1]['quantity'] = $pieces;

            return (new SampleBuild(
                Examples::file(
                    [[$part, $need], $relay],
                    ['leads' => [['ref' => 'W1', 'from' => 'board.out0', 'to' => 'relay.coil'], ...array_values($more)]],
                ),
            ))->finding('E11/W1');
        };
        $second = ['ref' => 'W2', 'from' => 'board.out1', 'to' => 'relay.coil'];

        self::assertSame(Verdict::Holds, $on(1)->verdict);
        self::assertSame(Verdict::Fails, $on(2)->verdict);
        self::assertStringContainsString("2 of them take 60\u{a0}mA", $on(2)->headline);
        self::assertSame(Verdict::Holds, $on(2, $second)->verdict, 'One each.');
        self::assertSame(Verdict::Fails, $on(3, $second)->verdict, 'One output has two of them.');
    }

    public function test_what_a_supply_may_hold_reaches_the_input_at_both_ends(): void
    {
        $of = static function (string $off, array $input): Finding {
            $file = Signals::probe('push-pull', '5 V', $input);
            $file['parts'][0]['specs']['output_voltage']['tolerance'] = $off;

            return (new SampleBuild($file))->finding('E11/W2');
        };
        $stands = ['max_voltage' => '5.2 V'];
        self::assertSame(Verdict::Holds, $of('3 %', $stands)->verdict);
        self::assertSame(Verdict::Danger, $of('5 %', $stands)->verdict, '5.25 V.');
        $asks = ['max_voltage' => '6 V', 'min_voltage' => '4.7 V'];
        self::assertSame(Verdict::Holds, $of('5 %', $asks)->verdict);
        self::assertSame(Verdict::Fails, $of('7 %', $asks)->verdict, '4.65 V.');
    }

    public function test_an_input_that_only_names_its_logic_stands_a_tenth_over_it(): void
    {
        $of = static function (string $volts): Finding {
            $file = Signals::probe('push-pull', $volts, []);
            foreach ($file['parts'][1]['ports'] as $i => $port) {
                unset($file['parts'][1]['ports'][$i]['specs']['max_voltage']);
            }
            $file['parts'][1]['specs'] = Examples::sheet(['logic_voltage' => '5 V']);

            return (new SampleBuild($file))->finding('E11/W2');
        };
        self::assertSame(Verdict::Fails, $of('3.4 V')->verdict, 'Less than 70 % of it.');
        self::assertSame([Verdict::Holds, Verdict::Holds], [$of('3.6 V')->verdict, $of('5.4 V')->verdict]);
        self::assertSame(Verdict::Danger, $of('5.6 V')->verdict);
    }

    /**
     * @return iterable<string, array{string, array<string, string|bool>, string, Verdict}> family, its sheet, level of
     * the output
     */
    public static function listeners(): iterable
    {
        yield 'a module from 3 V takes 3.3 V' => [
            'switching_module',
            ['control_min' => '3 V', 'control_max' => '24 V', 'control_current' => '5 mA', 'polarity_free' => true],
            '3.3 V',
            Verdict::Holds,
        ];
        yield 'a module from 4 V does not' => [
            'switching_module',
            ['control_min' => '4 V', 'control_max' => '32 V', 'control_current' => '5 mA', 'polarity_free' => true],
            '3.3 V',
            Verdict::Fails,
        ];
        yield '24 V burns a 5 V control' => [
            'switching_module',
            ['control_min' => '3 V', 'control_max' => '5.5 V', 'control_current' => '5 mA', 'polarity_free' => true],
            '24 V',
            Verdict::Danger,
        ];
        yield 'a module that takes more than the output gives' => [
            'switching_module',
            ['control_min' => '3 V', 'control_max' => '24 V', 'control_current' => '51 mA', 'polarity_free' => true],
            '3.3 V',
            Verdict::Fails,
        ];
        yield 'a module at the least it switches at' => [
            'switching_module',
            ['control_min' => '3.3 V', 'control_max' => '24 V', 'control_current' => '50 mA', 'polarity_free' => true],
            '3.3 V',
            Verdict::Tight,
        ];
        yield 'polarity that nobody states' => [
            'switching_module',
            ['control_min' => '3 V', 'control_max' => '24 V', 'control_current' => '5 mA'],
            '3.3 V',
            Verdict::Unproven,
        ];
        yield 'a 24 V coil at 24 V' => [
            'relay',
            ['coil_voltage' => '24 V', 'coil_current' => '18 mA'],
            '24 V',
            Verdict::Holds,
        ];
        yield 'a 24 V coil at 12 V' => [
            'relay',
            ['coil_voltage' => '24 V', 'coil_current' => '9 mA'],
            '12 V',
            Verdict::Fails,
        ];
        yield 'a 24 V coil at four fifths of it' => [
            'relay',
            ['coil_voltage' => '24 V', 'coil_current' => '18 mA'],
            '19.3 V',
            Verdict::Holds,
        ];
        yield 'a 24 V coil a tenth above it' => [
            'relay',
            ['coil_voltage' => '24 V', 'coil_current' => '18 mA'],
            '26.5 V',
            Verdict::Fails,
        ];
        yield 'a coil that takes more than the output gives' => [
            'relay',
            ['coil_voltage' => '24 V', 'coil_current' => '80 mA'],
            '24 V',
            Verdict::Fails,
        ];
        yield 'a 5 V driver at 3.3 V waits for a test' => [
            'motor_driver',
            ['signal_voltage' => '5 V'],
            '3.3 V',
            Verdict::Unproven,
        ];
        yield 'a 5 V driver at a fifth more' => ['motor_driver', ['signal_voltage' => '5 V'], '6 V', Verdict::Holds];
        yield 'a 5 V driver above that' => ['motor_driver', ['signal_voltage' => '5 V'], '6.1 V', Verdict::Fails];
        yield 'a 5 V driver at a tenth less' => ['motor_driver', ['signal_voltage' => '5 V'], '4.5 V', Verdict::Holds];
        yield 'a 5 V driver at 24 V burns' => ['motor_driver', ['signal_voltage' => '5 V'], '24 V', Verdict::Fails];
        yield 'an arc source that wants a contact' => [
            'arc_source',
            ['torch_switch' => 'dry contact'],
            '24 V',
            Verdict::Fails,
        ];
        yield 'an arc source nobody measured' => [
            'arc_source',
            ['torch_switch' => 'not known'],
            '24 V',
            Verdict::Unproven,
        ];
    }

    /**
     * @param  array<string, string|bool>  $sheet
     */
    #[DataProvider('listeners')]
    public function test_what_a_board_output_drives(string $family, array $sheet, string $level, Verdict $verdict): void
    {
        [$part, $need] = Examples::part('board', 'controller_board', ['logic_voltage' => '3.3 V']);
        $part['ports'] = [
            [
                'name' => 'out0',
                'kind' => 'signal',
                'specs' => Examples::sheet(['voltage' => $level, 'rated_current' => '50 mA']),
            ],
        ];
        $port = [
            'switching_module' => 'control',
            'relay' => 'coil',
            'motor_driver' => 'control',
            'arc_source' => 'torch',
        ][$family];
        $finding = (new SampleBuild(
            Examples::file(
                [[$part, $need], Examples::part('it', $family, $sheet)],
                ['leads' => [['ref' => 'W1', 'from' => 'board.out0', 'to' => "it.{$port}"]]],
            ),
        ))->finding('E11/W1');

        self::assertSame($verdict, $finding->verdict, $finding->headline);
    }

    public function test_a_coil_may_take_more_than_it_is_named_for(): void
    {
        $of = static function (string $tolerance): Finding {
            [$board, $need] = Examples::part('board', 'controller_board', []);
            $board['ports'] = [
                [
                    'name' => 'out0',
                    'kind' => 'signal',
                    'specs' => Examples::sheet(['voltage' => '24 V', 'rated_current' => '50 mA']),
                ],
            ];
            [$relay, $its] = Examples::part('it', 'relay', ['coil_voltage' => '24 V', 'coil_current' => '45 mA']);
            $relay['specs']['coil_current'] += ['tolerance' => $tolerance];

            return (new SampleBuild(
                Examples::file(
                    [[$board, $need], [$relay, $its]],
                    ['leads' => [['ref' => 'W1', 'from' => 'board.out0', 'to' => 'it.coil']]],
                ),
            ))->finding('E11/W1');
        };

        self::assertSame([Verdict::Holds, Verdict::Fails], [$of('10 %')->verdict, $of('20 %')->verdict]);
    }

    /**
     * Handbook E10: 200 × 16 / (20 × 2) = 80; 200 × 16 / 8 = 400; through 2:1 twice as many.
     *
     * @return iterable<string, array{array<string, mixed>, float, float}> drive, steps, kHz at 300 mm/s
     */
    public static function steps(): iterable
    {
        yield 'a belt of 20 teeth at 2 mm' => [[], 80.0, 24.0];
        yield 'a screw of 8 mm lead' => [['by' => 'screw'], 400.0, 120.0];
        yield 'the belt through 2:1' => [['ratio' => '2'], 160.0, 48.0];
    }

    /**
     * @param  array<string, mixed>  $drive
     */
    #[DataProvider('steps')]
    public function test_steps_for_a_millimetre(array $drive, float $steps, float $rate): void
    {
        $file = SampleAxis::file($drive);
        [$part, $need] = Examples::part('screw', 'drive_screw', ['lead' => '8 mm']);
        $file['parts'][] = $part;
        $file['needs'][] = $need;
        $finding = (new SampleBuild($file))->finding('E10/x');
        $worked = array_column(
            array_map(static fn ($s): array => ['label' => $s->label, 'result' => $s->result], $finding->working),
            'result',
            'label',
        );

        self::assertEqualsWithDelta($steps, $worked['Steps for one millimetre']?->in(''), 1e-9);
        self::assertEqualsWithDelta($rate, $worked['Steps a second at top speed']?->in('kHz'), 1e-9);
        self::assertSame($rate > 80 ? Verdict::Fails : Verdict::Holds, $finding->verdict);
    }

    /**
     * n = 120·f/p: 150 Hz, 2 poles: 9000 rpm; 400 Hz: 24 000 (handbook E22). Torque 500 W at 12 000 rpm: 0.398 N·m.
     */
    public function test_a_spindle_on_its_drive(): void
    {
        $file = static fn (string $speed, string $current): array => Examples::file(
            [
                Examples::part('drive', 'spindle_drive', [
                    'output_current' => '4 A',
                    'top_frequency' => '400 Hz',
                    'reverse_lock' => true,
                ]),
                Examples::part('spindle', 'spindle', [
                    'rated_current' => $current,
                    'poles' => '2',
                    'top_speed' => $speed,
                    'rated_power' => '500 W',
                    'lowest_speed' => '6000 rpm',
                ]),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'drive.motor', 'to' => 'spindle.power']]],
        );
        $finding = (new SampleBuild($file('12000 rpm', '3 A')))->finding('E22/drive');
        $worked = array_column(
            array_map(static fn ($s): array => ['label' => $s->label, 'result' => $s->result], $finding->working),
            'result',
            'label',
        );

        self::assertSame(Verdict::Holds, $finding->verdict);
        self::assertEqualsWithDelta(200, $worked['Frequency at its highest speed']?->in('Hz'), 1e-9);
        self::assertEqualsWithDelta(0.398, $worked['Torque']?->in('N m'), 0.001);
        self::assertEqualsWithDelta(250, $worked['Power left at its lowest speed']?->in('W'), 1e-9);
        self::assertStringContainsString(
            '400',
            (new SampleBuild($file('24000 rpm', '3 A')))->finding('E22/drive')->headline,
        );
        self::assertSame(Verdict::Fails, (new SampleBuild($file('30000 rpm', '3 A')))->finding('E22/drive')->verdict);
        self::assertSame(Verdict::Fails, (new SampleBuild($file('12000 rpm', '5 A')))->finding('E22/drive')->verdict);
    }

    /**
     * 240 W out at 88 %: 32.7 W stay. 2.99 × 32.7 / 10 = 9.79 m³/h. Walls of 400 × 300 × 150 mm less the back: 0.33 m²,
     * so 32.7 / (5.5 × 0.33) = 18.0 K. By hand.
     */
    public function test_cabinet_heat_by_hand(): void
    {
        $file = static fn (array $holds): array => Examples::file(
            [
                Examples::part('inlet', 'mains_inlet', []),
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => '24 V',
                    'rated_current' => '20 A',
                    'efficiency' => '88 %',
                    'input_voltage' => '90 V to 264 V',
                    'power_factor' => '0.9',
                ]),
                Examples::part('bed', 'heater', ['rated_voltage' => '24 V', 'rated_power' => '240 W']),
                Examples::part('fan', 'fan', [
                    'job' => 'cabinet',
                    'flow' => '24 m³/h',
                    'rated_current' => '0 A',
                    'rated_voltage' => '24 V',
                ]),
                Examples::part('box', 'cabinet', [
                    'material' => 'steel',
                    'width' => '400 mm',
                    'height' => '300 mm',
                    'depth' => '150 mm',
                ]),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'inlet.out', 'to' => 'psu.mains'],
                    ['ref' => 'W2', 'from' => 'psu.out', 'to' => 'bed.power'],
                ],
                'zones' => [
                    ['ref' => 'z', 'name' => 'Cabinet', 'kind' => 'cabinet', 'box' => 'box', 'holds' => $holds],
                ],
            ],
        );
        $of = static fn (array $holds): array => array_column(
            array_map(
                static fn ($s): array => ['label' => $s->label, 'result' => $s->result],
                (new SampleBuild($file($holds)))->finding('E23/z')->working,
            ),
            'result',
            'label',
        );

        self::assertEqualsWithDelta(9.785, $of(['psu', 'fan'])['Air it takes for a rise of 10 K']?->in('m³/h'), 0.01);
        self::assertSame(
            Verdict::Holds,
            (new SampleBuild($file(['psu', 'fan'])))->finding('E23/z')->verdict,
            '12 m³/h of the 24 are left.',
        );
        self::assertEqualsWithDelta(18.03, $of(['psu'])['Rise of the air in it']?->in('K'), 0.02);
        self::assertSame(Verdict::Tight, (new SampleBuild($file(['psu'])))->finding('E23/z')->verdict);
    }

    /** A sourcing probe of 24 V would burn a 3.3 V input; a stage that sinks takes it over, if it has read it at all. */
    public function test_an_isolating_stage_takes_a_signal_over_and_is_found_as_a_fix(): void
    {
        $file = Signals::probe('push-pull', '24 V');
        $shelf = static fn (string $least): array => [
            LibraryFile::read([
                'part' => Examples::part('stage', 'isolator', [
                    'input_min' => $least,
                    'input_max' => '30 V',
                    'output' => 'sinking',
                ])[0],
            ]),
        ];
        $standing = Standing::of(Rules::inspector(), (new SampleBuild($file))->build);
        $finding = $standing->findings()['E11/W2'];
        self::assertSame(Verdict::Danger, $finding->verdict);
        self::assertSame([], (new RemedySearch($standing, $shelf('40 V')))->for($finding)['remedies']);
        $remedies = (new RemedySearch($standing, $shelf('11 V')))->for($finding)['remedies'];
        self::assertCount(1, $remedies);
        self::assertStringStartsWith('stage between probe and board', $remedies[0]['says']);

        $build = Reading::of($standing->build())->changed($remedies[0]['changes']);
        $after = Standing::of(Rules::inspector(), $build)->findings();
        $created = array_values(array_diff(array_keys($build->leads), ['W1', 'W2']))[0];
        self::assertSame(Verdict::Holds, $after['E11/W2']->verdict, 'The probe on the stage.');
        self::assertSame(Verdict::Holds, $after["E11/{$created}"]->verdict, 'The stage on the board.');
    }
}
