<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Planning\Activity;
use Magpie\Core\Planning\Circle;
use Magpie\Core\Planning\Network;
use Magpie\Core\Planning\Spread;
use PHPUnit\Framework\TestCase;

/** Critical path and three-point estimates against a published worked example, and against their formulas. */
final class NetworkTest extends TestCase
{
    /**
     * The plant of Hillier and Lieberman, "Introduction to Operations Research", chapter on PERT and CPM (from memory): 44
     * weeks along A B C E F J L N, with a variance of 9.
     *
     * @return list<Activity>
     */
    private static function plant(): array
    {
        $list = [];
        foreach (
            [
                'A' => [1, 2, 3, ''],
                'B' => [2, 3.5, 8, 'A'],
                'C' => [6, 9, 18, 'B'],
                'D' => [4, 5.5, 10, 'C'],
                'E' => [1, 4.5, 5, 'C'],
                'F' => [4, 4, 10, 'E'],
                'G' => [5, 6.5, 11, 'D'],
                'H' => [5, 8, 17, 'E G'],
                'I' => [3, 7.5, 9, 'C'],
                'J' => [3, 9, 9, 'F I'],
                'K' => [4, 4, 4, 'J'],
                'L' => [1, 5.5, 7, 'J'],
                'M' => [1, 2, 3, 'H'],
                'N' => [5, 5.5, 9, 'K L'],
            ] as $key => [$a, $m, $b, $after]
        ) {
            $list[] = new Activity($key, $key, $a, $m, $b, array_values(array_filter(explode(' ', $after))));
        }

        return $list;
    }

    public function test_the_published_example(): void
    {
        $network = new Network(self::plant());
        self::assertEqualsWithDelta(44.0, $network->end, 1e-9);
        $critical = array_map(static fn (Activity $a): string => $a->key, $network->critical());
        self::assertSame(['A', 'B', 'C', 'E', 'F', 'J', 'L', 'N'], $critical);
        // Earliest and latest as printed there, and slack off the path.
        self::assertEqualsWithDelta(33.0, $network->begins['L'], 1e-9);
        self::assertEqualsWithDelta([4.0, 2.0, 1.0, 4.0], array_map($network->slack(...), ['D', 'I', 'K', 'M']), 1e-9);
        $variance = 0.0;
        foreach ($network->critical() as $activity) {
            $variance += (($activity->most - $activity->least) / 6) ** 2;
        }
        self::assertEqualsWithDelta(9.0, $variance, 1e-9);
    }

    public function test_moments_of_what_is_drawn_are_those_of_the_formulas(): void
    {
        foreach ([[1, 2, 3], [2, 3.5, 8], [4, 4, 10], [3, 9, 9], [0, 1, 100]] as [$a, $m, $b]) {
            $activity = new Activity('x', 'x', $a, $m, $b);
            $spread = new Spread(new Network([$activity]), 7, 20_000);
            $mean = array_sum($spread->ends) / 20_000;
            $square = array_sum(array_map(static fn (float $d): float => ($d - $mean) ** 2, $spread->ends)) / 20_000;
            $expected = $activity->mean();
            // Of a beta distribution: (μ − a)(b − μ) / (α + β + 1), and α + β is six.
            $variance = (($expected - $a) * ($b - $expected)) / 7;
            self::assertEqualsWithDelta($expected, $mean, 0.01 * ($b - $a));
            self::assertEqualsWithDelta($variance, $square, 0.04 * $variance);
            self::assertGreaterThanOrEqual($a, $spread->ends[0]);
            self::assertLessThanOrEqual($b, $spread->ends[19_999]);
        }
    }

    public function test_a_seed_gives_the_same_days_and_the_wide_ones_drive_the_spread(): void
    {
        $network = new Network(self::plant());
        $one = new Spread($network, 3);
        self::assertSame($one->ends, (new Spread($network, 3))->ends);
        self::assertNotSame($one->ends, (new Spread($network, 4))->ends);
        // More than the path's 44: others are critical now and then.
        self::assertGreaterThan(44.0, $one->within(0.5));
        self::assertGreaterThan($one->within(0.5), $one->within(0.9));
        self::assertSame('C', array_key_first($one->drivers));
        self::assertEqualsWithDelta(1.0, array_sum($one->drivers), 1e-9);
        self::assertSame(
            [3.0, 3.0],
            [
                (new Spread(new Network([Activity::of('a', 3)])))->within(0.1),
                (new Spread(new Network([Activity::of('a', 3)])))->within(0.9),
            ],
        );
    }

    public function test_a_circle_names_its_members_and_what_is_not_there_is_done(): void
    {
        self::assertEqualsWithDelta(2.0, (new Network([Activity::of('b', 2, 'gone')]))->end, 1e-9);
        self::assertSame(0.0, (new Network([]))->end);
        try {
            new Network([
                Activity::of('a', 1),
                Activity::of('b', 1, 'd', 'a'),
                Activity::of('c', 1, 'b'),
                Activity::of('d', 1, 'c'),
            ]);
            self::fail('It is a circle.');
        } catch (Circle $circle) {
            $members = $circle->members;
            sort($members);
            self::assertSame(['b', 'c', 'd'], $members);
        }
        $this->expectExceptionMessage('its days must go up');
        new Activity('x', 'x', 3, 2, 4);
    }
}
