<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Mechanical;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is planned, what was made and what was read, each for itself. */
final class AsMadeTest extends TestCase
{
    /**
     * @return iterable<string, array{array<string, string>, string, Verdict}>
     */
    public static function notes(): iterable
    {
        yield 'planned' => [['planned' => 'on'], 'read back once it is set to on', Verdict::Unproven];
        yield 'set, not read back' => [['made' => 'enabled'], 'it was set to enabled', Verdict::Unproven];
        yield 'set otherwise' => [['made' => 'off'], 'as it is now', Verdict::Unproven];
        yield 'read' => [['value' => 'yes'], 'agree', Verdict::Holds];
        yield 'read otherwise, and set since' => [
            ['value' => 'off', 'made' => 'on'],
            'it was set to on',
            Verdict::Unproven,
        ];
        yield 'read otherwise' => [['value' => 'off'], 'is off', Verdict::Danger];
    }

    /**
     * @param  array<string, string>  $note
     */
    #[DataProvider('notes')]
    public function test_a_setting_holds_once_it_is_read(array $note, string $says, Verdict $verdict): void
    {
        $finding = self::heaterWith([['ref' => 'S1', 'kind' => 'setting', 'about' => 'firmware.runaway'] + $note]);

        self::assertSame($verdict, $finding->verdict, $finding->headline);
        self::assertStringContainsString($says, $finding->headline.implode('; ', $finding->missing));
    }

    /**
     * @param  list<array<string, mixed>>  $settings
     */
    private static function heaterWith(array $settings): Finding
    {
        return (new SampleBuild(
            Examples::file([Examples::part('bed', 'heater', ['rated_power' => '100 W'])], ['settings' => $settings]),
        ))->finding('E21/firmware');
    }

    public function test_a_secret_is_not_kept(): void
    {
        self::heaterWith([['ref' => 'S1', 'kind' => 'setting', 'about' => 'wifi.password', 'value' => 'yes']]);
        $this->expectException(CannotReadBuildFile::class);
        $this->expectExceptionMessage('is a secret');
        self::heaterWith([['ref' => 'S1', 'kind' => 'setting', 'about' => 'wifi.password', 'made' => 'hunter2']]);
    }

    public function test_a_watched_fan_may_be_watched_either_way(): void
    {
        $fan = static fn (string $how): Finding => (new SampleBuild(
            Examples::file(
                [Examples::part('fan', 'fan', ['job' => 'hot end', 'speed_sense' => true])],
                ['settings' => [['ref' => 'S1', 'kind' => 'setting', 'about' => 'fan.fan.watched', 'value' => $how]]],
            ),
        ))->finding('E21/fan');

        self::assertSame(Verdict::Holds, $fan('speed signal')->verdict);
        self::assertSame(Verdict::Holds, $fan('spin check before each run')->verdict);
        self::assertSame(Verdict::Fails, $fan('no')->verdict);
    }

    public function test_the_power_word_for_full_speed_is_the_spindles(): void
    {
        $set = static fn (string $value): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('drive', 'spindle_drive', []),
                    Examples::part('spindle', 'spindle', ['top_speed' => '24000 rpm']),
                ],
                [
                    'leads' => [['ref' => 'W1', 'from' => 'drive.motor', 'to' => 'spindle.power']],
                    'settings' => [
                        ['ref' => 'S1', 'kind' => 'setting', 'about' => 'drive.drive.full_scale', 'value' => $value],
                    ],
                ],
            ),
        ))->finding('E21/firmware');

        self::assertSame(Verdict::Danger, $set('30000 rpm')->verdict);
        self::assertSame(Verdict::Unproven, $set('24000')->verdict);
    }

    public function test_a_crimp_that_came_off_too_soon_fails(): void
    {
        $pulled = static fn (string $force): Finding => (new SampleBuild(
            Examples::file(
                [
                    Examples::part('psu', 'power_supply', ['output_voltage' => '24 V']),
                    Examples::part('fan', 'fan', ['rated_current' => '0.1 A']),
                ],
                [
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'psu.out',
                            'to' => 'fan.power',
                            'conductor' => ['size' => '18 AWG', 'evidence' => 'datasheet'],
                            'ends' => [
                                ['termination' => 'ferrule'],
                                ['termination' => 'crimp', 'made' => true, 'pulled' => $force],
                            ],
                        ],
                    ],
                ],
            ),
        ))->finding('E20/W1');

        // UL 486A, from memory: gauge 18 must stand 89 N.
        self::assertSame(Verdict::Fails, $pulled('88 N')->verdict);
        self::assertSame(Verdict::Holds, $pulled('89 N')->verdict);
    }

    public function test_an_opening_as_it_was_cut(): void
    {
        $cut = static fn (string $size): Finding => (new SampleBuild(
            Examples::file(
                [
                    [
                        [
                            'ref' => 'inlet',
                            'family' => 'mains_inlet',
                            'name' => 'Inlet',
                            'specs' => ['cut_out' => ['value' => '27 mm', 'evidence' => 'measured']],
                        ],
                        ['opening' => $size] + Examples::part('inlet', 'mains_inlet', [])[1],
                    ],
                    Examples::part('panel', 'panel', ['length' => '200 mm', 'width' => '100 mm']),
                ],
                ['mates' => [['ref' => 'm', 'kind' => 'cut-out', 'between' => ['inlet', 'panel']]]],
            ),
        ))->finding('M09-cutout/m');

        self::assertSame(Verdict::Fails, $cut('26.8 mm')->verdict);
        self::assertSame(Verdict::Holds, $cut('27.5 mm')->verdict);
        self::assertSame(Verdict::Fails, $cut('28.6 mm')->verdict);
    }

    public function test_rollers_in_place_of_a_rail(): void
    {
        $on = static fn (int $rollers): Finding => (new SampleBuild(
            Examples::file(
                [
                    [
                        Examples::part('roller', 'bearing', [
                            'static_load' => '400 N',
                            'dynamic_load' => '800 N',
                            'outer_diameter' => '24 mm',
                        ])[0],
                        ['quantity' => $rollers] + Examples::part('roller', 'bearing', [])[1],
                    ],
                ],
                [
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'guides' => 'roller',
                            'drive' => [
                                'mass' => '10 kg',
                                'incline' => '0°',
                                'lever' => '0 mm',
                                'acceleration' => '1 m/s²',
                                'force' => '0 N',
                                'spread' => '200 mm',
                                'evidence' => 'measured',
                            ],
                        ],
                    ],
                ],
            ),
        ))->finding('M07/x');
        $four = $on(4);

        // 98.1 N on four: 24.5 N each; 400 / 24.5 = 16.3. (800 / 24.5)³ × 10⁶ × π × 24 mm.
        self::assertSame(Verdict::Holds, $four->verdict, $four->headline);
        self::assertEqualsWithDelta(
            (800 / ((10 * 9.80665) / 4)) ** 3 * M_PI * 24,
            $four->figures['life'][1]->in('km'),
            30,
        );
        self::assertStringContainsString('4 bearings', $four->headline);
    }

    public function test_climbing_cutters_want_less_play(): void
    {
        $fed = static fn (string $way): Finding => (new SampleBuild(
            Examples::file(
                [Examples::part('screw', 'drive_screw', ['kind' => 'ball screw', 'backlash' => '20 µm'])],
                [
                    'brief' => ['accuracy' => '0.1 mm', 'cut_direction' => $way],
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'drive' => ['by' => 'screw', 'end_play' => '5 µm'],
                        ],
                    ],
                ],
            ),
        ))->finding('M16/x');

        self::assertSame(Verdict::Holds, $fed('conventional')->verdict);
        self::assertSame(Verdict::Tight, $fed('climb')->verdict);
    }

    public function test_a_plate_nobody_weighed_weighs_what_its_size_says(): void
    {
        $sample = new SampleBuild(
            Examples::file(
                [
                    Examples::part('bed', 'plate', [
                        'material' => 'aluminium',
                        'thickness' => '8 mm',
                        'width' => '300 mm',
                        'depth' => '400 mm',
                    ]),
                    Examples::part('screw', 'drive_screw', ['lead' => '5 mm']),
                ],
                [
                    'axes' => [
                        [
                            'ref' => 'z',
                            'name' => 'Z',
                            'along' => 'z',
                            'drive' => [
                                'by' => 'screw',
                                'carries' => ['bed'],
                                'hand_wheel' => '50 mm',
                                'force' => '0 N',
                                'friction' => '0 N',
                                'incline' => '90°',
                                'efficiency' => '40 %',
                                'evidence' => 'measured',
                            ],
                        ],
                    ],
                ],
            ),
        );
        $finding = $sample->finding('M19/z');

        // 0.3 × 0.4 × 0.008 m³ of 2700 kg/m³ are 2.592 kg; × 9.80665 × 5 mm / (2π × 0.4 × 50 mm) is 1.01 N.
        self::assertEqualsWithDelta(
            (2.592 * 9.80665 * 5) / (2 * M_PI * 0.4 * 50),
            $finding->figures['hand'][1]->in('N'),
            1e-6,
        );
    }

    public function test_all_of_it_is_written_as_it_was_read(): void
    {
        $file =
            [
                'magpie' => 2,
                'build' => ['name' => 'Bench', 'kind' => 'router', 'currency' => 'GBP'],
            ] +
            Examples::file(
                [
                    Examples::part('r', 'bearing', []),
                    [
                        Examples::part('stop', 'stop_button', [])[0],
                        ['opening' => '30.5 mm'] + Examples::part('stop', 'stop_button', [])[1],
                    ],
                ],
                [
                    'brief' => ['cut_direction' => 'climb'],
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'guides' => 'r',
                            'drive' => ['hand_wheel' => '50 mm'],
                        ],
                    ],
                    'leads' => [
                        [
                            'ref' => 'W1',
                            'from' => 'stop.in',
                            'to' => 'stop.out',
                            'ends' => [['made' => true, 'pulled' => '90 N'], []],
                        ],
                    ],
                    'settings' => [['ref' => 'S1', 'kind' => 'setting', 'about' => 'a', 'made' => 'on']],
                ],
            );
        $written = BuildFile::data(BuildFile::build($file));

        self::assertSame('climb', $written['brief']['cut_direction'] ?? null);
        self::assertSame('30.5 mm', $written['needs'][1]['opening'] ?? null);
        self::assertSame(['made' => true, 'pulled' => '90 N'], $written['leads'][0]['ends'][0] ?? null);
        self::assertSame('r', $written['axes'][0]['guides'] ?? null);
        self::assertSame('50 mm', $written['axes'][0]['drive']['hand_wheel'] ?? null);
        self::assertSame('on', $written['settings'][0]['made'] ?? null);
        $this->expectExceptionMessage('bearing');
        BuildFile::build(array_replace_recursive($file, ['axes' => [['guides' => 'stop']]]));
    }
}
