<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Firmware;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Motion\SampleAxis;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** E21: what was read from the machine, held against what is fitted. */
final class SettingsTest extends TestCase
{
    public function test_settings_are_held_against_what_is_fitted(): void
    {
        $with = static fn (array $settings): SampleBuild => new SampleBuild(
            SampleAxis::file([], ['settings' => $settings]),
        );
        $note = static fn (string $about, string $value): array => [
            'ref' => strtr($about, '.', '-'),
            'kind' => 'setting',
            'about' => $about,
            'value' => $value,
        ];

        self::assertSame(Verdict::Unproven, $with([])->finding('E21/x')->verdict);
        self::assertSame(
            Verdict::Holds,
            $with([$note('axis.x.steps_per_mm', '80.0'), $note('axis.x.direction', 'tried by hand')])->finding('E21/x')
                ->verdict,
        );
        $wrong = $with([$note('axis.x.steps_per_mm', '160'), $note('axis.x.direction', 'tried by hand')])->finding(
            'E21/x',
        );
        self::assertSame(Verdict::Danger, $wrong->verdict);
        self::assertStringContainsString('is 160, and should be 80', $wrong->headline);
        self::assertSame(Verdict::Danger, $with([$note('driver.drv.current', '1.9 A')])->finding('E21/drv')->verdict);

        // Steps that were tuned by half a per cent are no danger; a lead in inches taken for millimetres is.
        $tuned = static fn (string $steps): Finding => $with([
            $note('axis.x.steps_per_mm', $steps),
            $note('axis.x.direction', 'tried by hand'),
        ])->finding('E21/x');
        self::assertSame([Verdict::Tight, Verdict::Tight], [$tuned('80.4')->verdict, $tuned('79.25')->verdict]);
        self::assertStringContainsString('is 80.4, and 80 by its parts: right where it was measured', $tuned('80.4')->headline);
        self::assertSame([Verdict::Danger, Verdict::Danger], [$tuned('81.28')->verdict, $tuned('78.7')->verdict]);
    }

    public function test_a_temporary_state_stays_open_until_it_is_undone(): void
    {
        $link = [
            'ref' => 'T1',
            'kind' => 'temporary',
            'about' => 'USB power link on the board',
            'until' => 'before main power',
        ];
        $open = (new SampleBuild(SampleAxis::file([], ['settings' => [$link]])))->finding('E21/temporary');

        self::assertSame(Verdict::Tight, $open->verdict);
        self::assertStringContainsString('must be undone before main power', $open->headline);
        self::assertSame(
            Verdict::Holds,
            (new SampleBuild(SampleAxis::file([], ['settings' => [['done' => true] + $link]])))->finding(
                'E21/temporary',
            )->verdict,
        );
    }

    public function test_one_sensor_for_both_ends_and_settings_beyond_the_travel(): void
    {
        $axis = static fn (array $homing): array => Examples::file(
            [Examples::part('rail', 'linear_rail', ['length' => '400 mm', 'block_length' => '60 mm'])],
            [
                'axes' => [
                    [
                        'ref' => 'x',
                        'name' => 'X',
                        'along' => 'x',
                        'rail' => 'rail',
                        'homing' => $homing + ['by' => 'sensorless'],
                    ],
                ],
            ],
        );

        self::assertSame(Verdict::Fails, (new SampleBuild($axis(['both_ends' => true])))->finding('E21/x')->verdict);
        $beyond = (new SampleBuild($axis(['configured' => '360 mm'])))->finding('E21/x');
        self::assertSame(Verdict::Danger, $beyond->verdict);
        self::assertStringContainsString("only 340\u{a0}mm are there", $beyond->headline);
        self::assertSame(
            Verdict::Danger,
            (new SampleBuild($axis(['by' => 'switch'])))->finding('E21/x')->verdict,
            'It homes by a switch that is not fitted.',
        );
    }

    /** @param  array<string, mixed>  ...$settings */
    private static function ofX(array ...$settings): Finding
    {
        $notes = [];
        foreach ($settings as $i => $setting) {
            $notes[] = $setting + ['ref' => "S{$i}", 'kind' => 'setting'];
        }

        return (new SampleBuild(SampleAxis::file([], ['settings' => $notes])))->finding('E21/x');
    }

    public function test_how_many_of_the_settings_were_read_is_said(): void
    {
        $steps = ['about' => 'axis.x.steps_per_mm', 'value' => '80'];
        $one = self::ofX($steps);

        self::assertSame(Verdict::Unproven, $one->verdict);
        self::assertSame(
            '1 of 2 settings are read and agree with what is fitted. Not known yet: Direction of X, as it is now.',
            $one->headline,
        );
        self::assertSame(
            'All that is set agrees with what is fitted.',
            self::ofX($steps, ['about' => 'axis.x.direction', 'value' => 'tried'])->headline,
        );
    }

    public function test_what_is_planned_or_set_waits_to_be_read_back(): void
    {
        $direction = ['about' => 'axis.x.direction', 'value' => 'tried'];
        $planned = self::ofX($direction, ['about' => 'axis.x.steps_per_mm', 'value' => '40', 'planned' => '80']);
        $made = self::ofX($direction, ['about' => 'axis.x.steps_per_mm', 'value' => '40', 'made' => '80']);

        self::assertSame([Verdict::Unproven, Verdict::Unproven], [$planned->verdict, $made->verdict]);
        self::assertSame(['Steps for a millimetre, X, read back once it is set to 80'], $planned->missing);
        self::assertSame(['Steps for a millimetre, X, read back: it was set to 80'], $made->missing);
    }

    public function test_a_slip_of_the_pen_is_not_a_setting_that_agrees(): void
    {
        $slip = (new SampleBuild(
            SampleAxis::file(
                [],
                ['settings' => [['ref' => 'S', 'kind' => 'setting', 'about' => 'axis.x.step', 'value' => '80']]],
            ),
        ))->finding('E21/unknown');

        self::assertSame(Verdict::Unproven, $slip->verdict);
        self::assertStringContainsString('axis.x.step', implode($slip->missing));
    }

    public function test_all_that_is_wrong_is_said_and_the_worst_counts(): void
    {
        $file = SampleAxis::file(
            [],
            [
                'settings' => [
                    ['ref' => 'S', 'kind' => 'setting', 'about' => 'axis.x.steps_per_mm', 'value' => '160'],
                    ['ref' => 'D', 'kind' => 'setting', 'about' => 'axis.x.direction', 'value' => 'tried'],
                ],
            ],
        );
        $file['axes'][0]['homing'] = ['both_ends' => true];
        $both = (new SampleBuild($file))->finding('E21/x');

        self::assertSame(Verdict::Danger, $both->verdict);
        self::assertSame(
            'Steps for a millimetre, X is 160, and should be 80; one sensor answers at both ends: at switch-on it cannot tell which.',
            $both->headline,
        );
        $file['axes'][0]['homing'] = ['by' => 'switch', 'sensors' => ['stop']];
        $file['settings'][] = ['ref' => 'H', 'kind' => 'setting', 'about' => 'axis.x.homing', 'value' => 'switch'];
        $file['settings'][0]['value'] = '80';
        [$part, $need] = Examples::part('stop', 'limit_switch', []);
        $file['parts'][] = $part;
        $file['needs'][] = $need;
        self::assertSame(Verdict::Holds, (new SampleBuild($file))->finding('E21/x')->verdict, 'Its switch is fitted.');
    }

    public function test_settings_as_long_as_the_travel_are_no_danger(): void
    {
        $of = static fn (string $configured): Finding => (new SampleBuild(
            Examples::file(
                [],
                [
                    'axes' => [
                        [
                            'ref' => 'x',
                            'name' => 'X',
                            'along' => 'x',
                            'span' => '300 mm',
                            'homing' => ['configured' => $configured, 'by' => 'none'],
                        ],
                    ],
                    'settings' => [
                        ['ref' => 'T', 'kind' => 'setting', 'about' => 'axis.x.travel', 'value' => $configured],
                        ['ref' => 'H', 'kind' => 'setting', 'about' => 'axis.x.homing', 'value' => 'none'],
                    ],
                ],
            ),
        ))->finding('E21/x');

        self::assertNotSame(Verdict::Danger, $of('300 mm')->verdict);
        self::assertSame(Verdict::Danger, $of('301 mm')->verdict);
        self::assertStringContainsString(
            "the settings allow 301\u{a0}mm, and only 300\u{a0}mm are there",
            $of('301 mm')->headline,
        );
    }
}
