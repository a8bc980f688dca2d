<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Firmware;

use Magpie\Core\Firmware\SettingLine;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Setting;
use Magpie\Core\Machine\SettingKind;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What must be set follows from what is fitted, and from nothing else. */
final class SettingsAuditTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $file
     * @return array<string, SettingLine>
     */
    private static function lines(array $file): array
    {
        $lines = [];
        foreach (SettingsAudit::of(new Survey((new SampleBuild($file))->build))->lines() as $line) {
            $lines[$line->key] = $line;
        }

        return $lines;
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, string|null}> build, line, what it should be
     */
    public static function wanted(): iterable
    {
        yield 'runaway protection for any heater' => [
            Examples::file([Examples::part('h', 'heater', [])]),
            'firmware.runaway',
            'present',
        ];
        yield 'steps from motor, driver and pulley' => [SampleAxis::file(), 'axis.x.steps_per_mm', '80'];
        yield 'steps through a reduction' => [SampleAxis::file(['ratio' => '3']), 'axis.x.steps_per_mm', '240'];
        yield 'no steps without the microsteps' => [
            self::without(SampleAxis::file(), 'drv', 'microsteps'),
            'axis.x.steps_per_mm',
            null,
        ];
        yield 'a direction is tried' => [SampleAxis::file(), 'axis.x.direction', 'tried by hand'];
        yield 'the current of a driver' => [SampleAxis::file(), 'driver.drv.current', '1.5 A'];
        yield 'its microsteps' => [SampleAxis::file(), 'driver.drv.microsteps', '16'];
        yield 'homing as fitted' => [
            Examples::file(
                [],
                ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'homing' => ['by' => 'sensorless']]]],
            ),
            'axis.x.homing',
            'sensorless',
        ];
        yield 'travel no longer than there is' => [
            Examples::file(
                [Examples::part('r', 'linear_rail', ['length' => '400 mm', 'block_length' => '60 mm'])],
                [
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'rail' => 'r',
                            'takes' => [['what' => 'Stops', 'length' => '10 mm']],
                        ],
                    ],
                ],
            ),
            'axis.x.travel',
            '330 mm',
        ];
        yield 'travel not known without the rail' => [
            Examples::file(
                [Examples::part('r', 'linear_rail', [])],
                ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'rail' => 'r']]],
            ),
            'axis.x.travel',
            null,
        ];
        yield 'the table of a thermistor' => [
            Examples::file([Examples::part('t', 'thermistor', ['table' => '100k, B 3950'])]),
            'thermistor.t.table',
            '100k, B 3950',
        ];
        yield 'no hotter than the sensor' => [
            Examples::file([Examples::part('t', 'thermistor', ['highest_temperature' => '300 °C'])]),
            'thermistor.t.top',
            '300 °C',
        ];
        yield 'nor than the lining' => [
            Examples::file([
                Examples::part('t', 'thermistor', ['highest_temperature' => '300 °C']),
                Examples::part('hot', 'hot_end', ['lining_limit' => '240 °C']),
            ]),
            'thermistor.t.top',
            '240 °C',
        ];
        yield 'nor than the lining of the hot end it sits in' => [
            self::sitting(
                Examples::file([
                    Examples::part('t', 'thermistor', ['highest_temperature' => '300 °C']),
                    Examples::part('hot', 'hot_end', ['lining_limit' => '240 °C']),
                    Examples::part('other', 'hot_end', ['lining_limit' => '200 °C']),
                ]),
                't',
                'hot',
            ),
            'thermistor.t.top',
            '240 °C',
        ];
        yield 'nor than the bed it sits in stands' => [
            self::sitting(
                Examples::file([
                    Examples::part('t', 'thermistor', ['highest_temperature' => '300 °C']),
                    Examples::part('bed', 'heater', ['material_limit' => '150 °C']),
                ]),
                't',
                'bed',
            ),
            'thermistor.t.top',
            '150 °C',
        ];
        yield 'the sensor where the lining stands more' => [
            Examples::file([
                Examples::part('t', 'thermistor', ['highest_temperature' => '250 °C']),
                Examples::part('hot', 'hot_end', ['lining_limit' => '280 °C']),
            ]),
            'thermistor.t.top',
            '250 °C',
        ];
        yield 'the lining where nothing is known of the sensor' => [
            Examples::file([
                Examples::part('t', 'thermistor', []),
                Examples::part('hot', 'hot_end', ['lining_limit' => '240 °C']),
            ]),
            'thermistor.t.top',
            '240 °C',
        ];
        yield 'a fan of the board is watched as one of the hot end is' => [
            Examples::file([Examples::part('f', 'fan', ['job' => 'board', 'speed_sense' => true])]),
            'fan.f.watched',
            'speed signal',
        ];
        yield 'travel of a span without a rail is as long as it may be told' => [
            Examples::file([], ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'span' => '312.37 mm']]]),
            'axis.x.travel',
            '312.3 mm',
        ];
        yield 'steps to the thousandth' => [SampleAxis::file(['ratio' => '3.14159']), 'axis.x.steps_per_mm', '251.327'];
        yield 'each heater alone' => [Examples::file([Examples::part('h', 'heater', [])]), 'heater.h.crossed', 'tried'];
        yield 'a hot-end fan that reports' => [
            Examples::file([Examples::part('f', 'fan', ['job' => 'hot end', 'speed_sense' => true])]),
            'fan.f.watched',
            'speed signal',
        ];
        yield 'one that does not' => [
            Examples::file([Examples::part('f', 'fan', ['job' => 'hot end', 'speed_sense' => false])]),
            'fan.f.watched',
            'spin check before each run',
        ];
        yield 'links under a driver' => [
            Examples::file([Examples::part('d', 'motor_driver', ['mode' => 'serial'])]),
            'slot.d.mode',
            'for serial',
        ];
        yield 'a bus is ended' => [
            Examples::file([Examples::part('b', 'bus_module', ['link' => 'differential bus'])]),
            'bus.b.termination',
            'set',
        ];
        yield 'reverse is locked out' => [
            Examples::file([Examples::part('d', 'spindle_drive', [])]),
            'drive.d.reverse',
            'locked out',
        ];
        yield 'where the speed comes from' => [
            Examples::file([Examples::part('d', 'spindle_drive', ['speed_command' => '0 to 10 V'])]),
            'drive.d.speed',
            '0 to 10 V',
        ];
    }

    /**
     * @param  array<string, mixed>  $file
     */
    #[DataProvider('wanted')]
    public function test_a_line_for_what_is_fitted(array $file, string $key, ?string $wants): void
    {
        $lines = self::lines($file);

        self::assertArrayHasKey($key, $lines, implode(', ', array_keys($lines)));
        self::assertSame($wants, $lines[$key]->wants);
        self::assertSame(SettingLine::OPEN, $lines[$key]->state(), 'Nobody has read it yet.');
    }

    /** @return iterable<string, array{array<string, mixed>, list<string>}> build, and all that is asked for */
    public static function asked(): iterable
    {
        yield 'a driver without microsteps has none to set, and no axis whose homing a link would take' => [
            Examples::file([Examples::part('d', 'motor_driver', [])]),
            ['driver.d.current'],
        ];
        yield 'a driver told by steps has no link for sensing' => [
            self::driven(SampleAxis::file(), 'switch', 'step and direction'),
            [
                'axis.x.steps_per_mm',
                'axis.x.direction',
                'axis.x.homing',
                'driver.drv.current',
                'driver.drv.microsteps',
                'slot.drv.mode',
            ],
        ];
        yield 'an axis moved by hand is only as long as it is' => [
            Examples::file([], ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'span' => '300 mm']]]),
            ['axis.x.travel'],
        ];
        yield 'an axis without a rail or span has no travel to limit' => [
            Examples::file([], ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x']]]),
            [],
        ];
        yield 'a link that is no bus has no ends' => [
            Examples::file([Examples::part('b', 'bus_module', ['link' => 'separate wires'])]),
            [],
        ];
        yield 'a fan that cools the part may die unseen' => [
            Examples::file([Examples::part('f', 'fan', ['job' => 'part', 'speed_sense' => true])]),
            [],
        ];
    }

    /**
     * @param  array<string, mixed>  $file
     * @param  list<string>  $keys
     */
    #[DataProvider('asked')]
    public function test_nothing_more_is_asked_for(array $file, array $keys): void
    {
        self::assertSame($keys, array_keys(self::lines($file)));
    }

    public function test_what_would_hurt_is_said_and_what_a_limit_is(): void
    {
        $lines = self::lines(
            Examples::file(
                [
                    Examples::part('h', 'heater', []),
                    Examples::part('t', 'thermistor', []),
                    Examples::part('sd', 'spindle_drive', []),
                    Examples::part('drv', 'motor_driver', ['microsteps' => '16', 'mode' => 'serial']),
                    Examples::part('m', 'stepper_motor', []),
                    Examples::part('f', 'fan', ['job' => 'hot end', 'speed_sense' => true]),
                    Examples::part('quiet', 'fan', ['job' => 'hot end', 'speed_sense' => false]),
                    Examples::part('bus', 'bus_module', ['link' => 'differential bus']),
                ],
                [
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'span' => '300 mm',
                            'homing' => ['by' => 'probe'],
                            'drive' => ['motors' => ['m']],
                        ],
                    ],
                    'settings' => [
                        [
                            'ref' => 'T',
                            'kind' => 'temporary',
                            'about' => 'door switch bridged',
                            'until' => 'before first run',
                        ],
                        ['ref' => 'U', 'kind' => 'setting', 'about' => 'axis.x.homng', 'value' => 'probe'],
                    ],
                ],
            ),
        );

        self::assertSame(
            [
                'firmware.runaway' => 'grave setting equal',
                'drive.sd.reverse' => 'grave setting equal',
                'drive.sd.speed' => 'setting equal',
                'drive.sd.full_scale' => 'grave setting equal',
                'axis.x.steps_per_mm' => 'grave setting equal',
                'axis.x.direction' => 'grave setting equal',
                'axis.x.homing' => 'grave setting equal',
                'axis.x.travel' => 'grave setting at most',
                'driver.drv.current' => 'grave setting equal',
                'driver.drv.microsteps' => 'grave setting equal',
                'thermistor.t.table' => 'grave setting equal',
                'thermistor.t.top' => 'grave setting at most',
                'heater.h.crossed' => 'grave setting equal',
                'fan.f.watched' => 'setting one of',
                'fan.quiet.watched' => 'setting equal',
                'slot.drv.mode' => 'grave link equal',
                'slot.drv.sensorless' => 'link equal',
                'bus.bus.termination' => 'link equal',
                'door switch bridged' => 'grave temporary equal',
                'axis.x.homng' => 'unknown equal',
            ],
            array_map(
                static fn (SettingLine $l): string => ($l->grave ? 'grave ' : '')."{$l->kind} {$l->sense()}",
                $lines,
            ),
        );
        self::assertStringEndsWith('the nearest that is asked for is axis.x.homing', $lines['axis.x.homng']->why);
        self::assertSame('by: before first run', $lines['door switch bridged']->why);
        self::assertSame(['undone', null], [$lines['door switch bridged']->wants, $lines['axis.x.homng']->wants]);
    }

    public function test_nothing_fitted_asks_for_nothing(): void
    {
        self::assertSame(
            [],
            self::lines(
                Examples::file([Examples::part('p', 'plate', []), Examples::part('f', 'fan', ['job' => 'part'])]),
            ),
        );
    }

    public function test_a_sensorless_axis_has_its_link_set_and_one_with_a_switch_has_it_open(): void
    {
        $with = static fn (string $by): array => self::lines(self::driven(SampleAxis::file(), $by));

        self::assertSame('set', $with('sensorless')['slot.drv.sensorless']->wants);
        self::assertSame('open', $with('switch')['slot.drv.sensorless']->wants);
    }

    /**
     * @return iterable<string, array{string, string, string}>
     */
    public static function readings(): iterable
    {
        yield 'the same' => ['80', '80', SettingLine::AGREES];
        yield 'with zeros after it' => ['80', '80.000', SettingLine::AGREES];
        yield 'with another unit behind' => ['1.5 A', '1.5', SettingLine::AGREES];
        yield 'a comma for a point' => ['1.5 A', '1,5 A', SettingLine::AGREES];
        yield 'rounded in the last place' => ['1007.14', '1007.1', SettingLine::AGREES];
        yield 'a hundredth off' => ['80', '80.8', SettingLine::DIFFERS];
        yield 'another sign' => ['80', '-80', SettingLine::DIFFERS];
        yield 'a thousandth off' => ['1000 mm', '1001 mm', SettingLine::AGREES];
        yield 'a little more than a thousandth off' => ['1000 mm', '1001.1 mm', SettingLine::DIFFERS];
        yield 'another unit' => ['300 mm', '0.3 m', SettingLine::AGREES];
        yield 'another unit, another length' => ['300 mm', '300 m', SettingLine::DIFFERS];
        yield 'a quantity of another kind' => ['300 mm', '300 V', SettingLine::DIFFERS];
        yield 'no quantity at all' => ['300 mm', 'long', SettingLine::DIFFERS];
        yield 'less than what is asked for' => ['300 mm', '200 mm', SettingLine::DIFFERS];
        yield 'another word for it' => ['present', 'enabled', SettingLine::AGREES];
        yield 'the opposite' => ['open', 'set', SettingLine::DIFFERS];
        yield 'another word for nothing' => ['open', ' Not set ', SettingLine::AGREES];
        yield 'one is a number, and no word' => ['1', '1.0', SettingLine::AGREES];
        yield 'nor is it a yes' => ['1', 'on', SettingLine::DIFFERS];
        yield 'words in capitals' => ['present', 'Present', SettingLine::AGREES];
        yield 'other words' => ['present', 'absent', SettingLine::DIFFERS];
        yield 'a name that starts with a figure' => ['100k, B 3950', '100k, B 3950', SettingLine::AGREES];
    }

    #[DataProvider('readings')]
    public function test_when_a_reading_agrees(string $wants, string $value, string $state): void
    {
        self::assertSame($state, self::read($wants, $value)->state());
    }

    /**
     * @return iterable<string, array{string, string, string}>
     */
    public static function limits(): iterable
    {
        yield 'below' => ['240 °C', '200 °C', SettingLine::AGREES];
        yield 'at it' => ['240 °C', '240', SettingLine::AGREES];
        yield 'a hair above' => ['240 °C', '240.1 °C', SettingLine::DIFFERS];
        yield 'at it, in another unit' => ['312.3 mm', '0.3123 m', SettingLine::AGREES];
        yield 'a shorter travel in another unit' => ['330 mm', '0.3 m', SettingLine::AGREES];
        yield 'a longer one' => ['330 mm', '34 cm', SettingLine::DIFFERS];
    }

    #[DataProvider('limits')]
    public function test_less_than_a_limit_agrees(string $wants, string $value, string $state): void
    {
        self::assertSame($state, self::read($wants, $value, atMost: true)->state());
    }

    public function test_what_is_planned_or_made_has_still_to_be_read_back(): void
    {
        $of = static fn (
            ?string $value,
            ?string $planned,
            ?string $made,
            ?string $wants = '80',
        ): string => (new SettingLine(
            'k',
            'setting',
            ['axis', 'x'],
            'Line',
            $wants,
            'why',
            set: new Setting('S', SettingKind::Setting, 'k', $value, null, false, null, $planned, $made),
        ))->state();

        self::assertSame(SettingLine::PLANNED, $of('40', '80', null));
        self::assertSame(SettingLine::MADE, $of('40', '80', '80'));
        self::assertSame(SettingLine::DIFFERS, $of('40', '90', '90'), 'Planned and made, but not as it should be.');
        self::assertSame(SettingLine::OPEN, $of(null, '90', null));
        self::assertSame(SettingLine::AGREES, $of('80', '90', '90'), 'What was read counts.');
        self::assertSame(SettingLine::OPEN, $of('80', '80', '80', null), 'Nobody knows yet what it should be.');
    }

    public function test_either_of_two_ways_agrees(): void
    {
        $fan = static fn (string $value): string => self::read(
            'speed signal',
            $value,
            or: ['spin check before each run'],
        )->state();

        self::assertSame(SettingLine::AGREES, $fan('Speed signal'));
        self::assertSame(SettingLine::AGREES, $fan('spin check before each run'));
        self::assertSame(SettingLine::DIFFERS, $fan('not at all'));
    }

    public function test_a_tick_stands_for_a_reading_and_a_reading_outweighs_a_tick(): void
    {
        $line = static fn (?string $value, bool $done): SettingLine => new SettingLine(
            'k',
            'link',
            ['need', 'd'],
            'Line',
            'set',
            'why',
            set: new Setting('S', SettingKind::Link, 'k', $value, null, $done),
        );

        self::assertSame(SettingLine::OPEN, $line(null, false)->state());
        self::assertSame(SettingLine::AGREES, $line(null, true)->state());
        self::assertSame(SettingLine::DIFFERS, $line('open', true)->state(), 'Ticked, and read as something else.');
    }

    public function test_what_hurts_when_wrong_is_a_danger_and_the_rest_fails(): void
    {
        $runaway = Examples::file(
            [Examples::part('h', 'heater', [])],
            ['settings' => [['ref' => 'S', 'kind' => 'setting', 'about' => 'firmware.runaway', 'value' => 'off']]],
        );
        self::assertSame(Verdict::Danger, (new SampleBuild($runaway))->finding('E21/firmware')->verdict);
        $fan = Examples::file(
            [Examples::part('f', 'fan', ['job' => 'hot end', 'speed_sense' => true])],
            ['settings' => [['ref' => 'S', 'kind' => 'setting', 'about' => 'fan.f.watched', 'value' => 'not at all']]],
        );
        self::assertSame(Verdict::Fails, (new SampleBuild($fan))->finding('E21/f')->verdict);
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>
     */
    private static function driven(array $file, string $by, string $mode = 'serial'): array
    {
        $file['axes'][0]['homing'] = ['by' => $by];
        foreach ($file['parts'] as $i => $part) {
            $part['ref'] === 'drv' &&
                ($file['parts'][$i]['specs']['mode'] = ['value' => $mode, 'evidence' => 'datasheet']);
        }

        return $file;
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>
     */
    private static function without(array $file, string $ref, string $spec): array
    {
        foreach ($file['parts'] as $i => $part) {
            if ($part['ref'] === $ref) {
                unset($file['parts'][$i]['specs'][$spec]);
            }
        }

        return $file;
    }

    /**
     * @param  array<string, mixed>  $file
     * @return array<string, mixed>
     */
    private static function sitting(array $file, string $need, string $in): array
    {
        foreach ($file['needs'] as $i => $one) {
            $one['ref'] === $need && ($file['needs'][$i]['sits_in'] = $in);
        }

        return $file;
    }

    /** @param  list<string>  $or */
    private static function read(string $wants, string $value, bool $atMost = false, array $or = []): SettingLine
    {
        $set = new Setting('S', SettingKind::Setting, 'k', $value);

        return new SettingLine('k', 'setting', ['build', 'firmware'], 'Line', $wants, 'why', false, $set, $atMost, $or);
    }
}
