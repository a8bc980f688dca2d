<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

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
        yield 'words in capitals' => ['present', 'Present', SettingLine::AGREES];
        yield 'other words' => ['present', 'absent', SettingLine::DIFFERS];
        yield 'a name that starts with a figure' => ['100k, B 3950', '100k, B 3950', SettingLine::AGREES];
    }

    #[DataProvider('readings')]
    public function test_when_a_reading_agrees(string $wants, string $value, string $state): void
    {
        $line = new SettingLine(
            'k',
            'setting',
            ['build', 'firmware'],
            'Line',
            $wants,
            'why',
            set: new Setting('S', SettingKind::Setting, 'k', $value),
        );

        self::assertSame($state, $line->state());
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
    private static function driven(array $file, string $by): array
    {
        $file['axes'][0]['homing'] = ['by' => $by];
        foreach ($file['parts'] as $i => $part) {
            $part['ref'] === 'drv' &&
                ($file['parts'][$i]['specs']['mode'] = ['value' => 'serial', 'evidence' => 'datasheet']);
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
}
