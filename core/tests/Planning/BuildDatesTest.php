<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Planning\BuildDates;
use PHPUnit\Framework\TestCase;

/** The dates of a small build, by hand. */
final class BuildDatesTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $with
     */
    private static function dates(array $with = []): BuildDates
    {
        $file = Examples::file(
            [Examples::part('rail', 'linear_rail', []), Examples::part('belt', 'belt', [])],
            $with + [
                'magpie' => BuildFile::VERSION,
                'build' => [
                    'name' => 'Sample',
                    'kind' => 'sample',
                    'currency' => 'GBP',
                    'weekly' => '7 h',
                    'pace' => '200 %',
                ],
                'suppliers' => [
                    [
                        'ref' => 'shop',
                        'name' => 'Shop',
                        'currency' => 'GBP',
                        'lead_days' => 12,
                        'shipping' => [['from' => '0', 'cost' => '1']],
                    ],
                ],
                'offers' => [
                    ['ref' => 'o1', 'part' => 'rail', 'supplier' => 'shop', 'price' => '9', 'date' => '2026-11-01'],
                    [
                        'ref' => 'o2',
                        'part' => 'belt',
                        'supplier' => 'shop',
                        'price' => '2',
                        'lead_days' => 3,
                        'date' => '2026-11-01',
                    ],
                ],
                'steps' => [
                    ['ref' => 's1', 'position' => 1, 'section' => 'A', 'title' => 'Frame', 'guide' => '3 h'],
                    [
                        'ref' => 's2',
                        'position' => 2,
                        'section' => 'A',
                        'title' => 'Rail',
                        'guide' => '1 h',
                        'uses' => ['rail' => 1],
                    ],
                    [
                        'ref' => 's3',
                        'position' => 3,
                        'section' => 'A',
                        'title' => 'Belt',
                        'guide' => '2 h',
                        'uses' => ['belt' => 1],
                    ],
                ],
            ],
        );

        return new BuildDates(BuildFile::build($file), '2026-11-30', 1, 500);
    }

    public function test_steps_wait_for_their_parts_and_for_one_pair_of_hands(): void
    {
        $data = self::dates()->toArray();
        $all = array_column($data['activities'], null, 'key');
        // An hour a day, at twice the guide's time: six days of frame; means of three points are 13/12 higher for steps
        // (0.7 + 4 + 2)/6 = 1.1167, for deliveries (0.8 + 4 + 2)/6 = 1.1333.
        self::assertEqualsWithDelta((6 * 6.7) / 6, $all['step/s1']['days'], 0.01);
        self::assertEqualsWithDelta((12 * 6.8) / 6, $all['order/rail']['days'], 0.01);
        self::assertSame(0.0, $all['step/s1']['begins']);
        // The rail comes after 13.6 days; then two days of it, then the belt, here long since.
        self::assertEqualsWithDelta(13.6, $all['step/s2']['begins'], 0.01);
        self::assertEqualsWithDelta(13.6 + (2 * 6.7) / 6, $all['step/s3']['begins'], 0.01);
        self::assertSame(['order/rail', 'step/s2', 'step/s3'], $data['critical']);
        self::assertTrue($all['order/rail']['critical']);
        // 13.6 + 2.23 + 4.47 = 20.3 days after 30 November.
        self::assertSame('2026-12-21', $data['planned']);
        // The belt may be ordered 15.83 − 3.4 = 12.43 days later, the rail today.
        self::assertSame('2026-12-12', $all['order/belt']['latest']);
        self::assertSame('2026-11-30', $all['order/rail']['latest']);
        // Between the frame and the rail nothing can be done.
        self::assertSame([6, 'Rail'], [$data['waits'][0]['days'], $data['waits'][0]['for']]);
        self::assertGreaterThanOrEqual($data['p50'], $data['p90']);
        self::assertSame('order/rail', $data['drivers'][0]['key']);
    }

    public function test_what_is_on_its_way_is_due_when_it_is_due_and_what_is_not_said_is_told(): void
    {
        $bought = [
            'purchases' => [
                [
                    'ref' => 'b',
                    'part' => 'rail',
                    'supplier' => 'shop',
                    'pieces' => 1,
                    'paid' => '9',
                    'date' => '2026-11-20',
                    'due' => '2026-12-02',
                ],
            ],
        ];
        $all = array_column(self::dates($bought)->toArray()['activities'], null, 'key');
        self::assertArrayNotHasKey('order/rail', $all);
        self::assertEqualsWithDelta((2 * 6.8) / 6, $all['come/b']['days'], 0.01);
        // Overdue, it is not here yet: tomorrow at the earliest. Arrived, nothing waits for it.
        $bought['purchases'][0]['due'] = '2026-11-25';
        $all = array_column(self::dates($bought)->toArray()['activities'], null, 'key');
        self::assertEqualsWithDelta(6.8 / 6, $all['come/b']['days'], 0.01);
        $bought['purchases'][0]['received'] = 1;
        $data = self::dates($bought)->toArray();
        self::assertNotContains('come/b', array_column($data['activities'], 'key'));
        // The frame and the rail follow at once; nothing is waited for.
        self::assertSame([], $data['waits']);
        $unsaid = self::dates(['offers' => []])->toArray();
        self::assertSame(
            ['14 days, since no supplier says how long it takes'],
            array_column($unsaid['activities'], null, 'key')['order/rail']['assumed'],
        );
        $plan = self::dates(['build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP']])->toArray();
        self::assertSame(['5 hours a week, since the brief does not say'], $plan['assumed']);
    }

    public function test_what_a_late_parcel_moves_and_what_it_does_not(): void
    {
        $end = static fn (int $days): string => self::dates([
            'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP', 'lead_days' => $days]],
        ])->toArray()['planned'];
        self::assertSame('2026-12-21', $end(12));
        self::assertGreaterThan($end(12), $end(20));
        // Sooner than the frame is done it gains nothing more.
        self::assertSame($end(3), $end(5));
    }

    public function test_nothing_to_do_ends_today_and_what_comes_first_does_whatever_its_number(): void
    {
        $empty = BuildFile::build([
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP'],
        ]);
        $none = (new BuildDates($empty, '2026-11-30'))->toArray();
        self::assertSame(['2026-11-30', []], [$none['p90'], $none['activities']]);
        // A number that contradicts what comes first is no circle: what comes first does.
        $data = self::dates(['steps' => [
            ['ref' => 's1', 'position' => 1, 'section' => 'A', 'title' => 'One', 'guide' => '1 h', 'after' => ['s2']],
            ['ref' => 's2', 'position' => 2, 'section' => 'A', 'title' => 'Two', 'guide' => '1 h'],
        ]])->toArray();
        $begins = array_column($data['activities'], 'begins', 'key');
        self::assertLessThan($begins['step/s1'], $begins['step/s2']);
    }
}
