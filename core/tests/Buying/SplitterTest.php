<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Buying;

use Magpie\Core\Buying\Splitter;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The search against trying everything, and what must hold of any optimum. The peer from outside is SplitPeerTest. */
final class SplitterTest extends TestCase
{
    /**
     * @return iterable<array{int}>
     */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 40; $seed++) {
            yield [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_it_finds_what_trying_everything_finds(int $seed): void
    {
        [$lines, $terms] = Instances::of(6, 3, $seed);
        foreach ([PHP_INT_MAX, 1, 2] as $most) {
            $least = self::everything($lines, $terms, $most);
            $found = (new Splitter($lines, $terms, $most))->solve();
            self::assertTrue($found['proven']);
            if (is_infinite($least)) {
                self::assertNull($found['ways'], "at most {$most} suppliers");
            } else {
                self::assertEqualsWithDelta($least, $found['cost'], 0.005, "at most {$most} suppliers");
                self::assertNotNull($found['ways']);
                self::assertEqualsWithDelta($found['cost'], self::of($lines, $terms, $found['ways']), 1e-6);
                self::assertLessThanOrEqual($found['cost'] + 1e-9, $found['bound']);
            }
        }
    }

    #[DataProvider('seeds')]
    public function test_a_further_way_never_raises_what_it_costs(int $seed): void
    {
        [$lines, $terms] = Instances::of(12, 5, $seed);
        $before = (new Splitter($lines, $terms))->solve();
        $more = $lines;
        $more[$seed % 12][] = [4 => 3_000_000 * (($seed % 7) + 1)];
        $after = (new Splitter($more, $terms))->solve();
        self::assertTrue($before['proven'] && $after['proven']);
        self::assertLessThanOrEqual($before['cost'] + 0.005, $after['cost']);
        // And one supplier less never lowers it.
        $used = count(self::taken($lines, $before['ways'] ?? []));
        $fewer = (new Splitter($lines, $terms, max(1, $used - 1)))->solve();
        self::assertGreaterThanOrEqual($before['cost'] - 0.005, $fewer['cost']);
    }

    public function test_where_it_stops_early_it_tells_the_gap(): void
    {
        [$lines, $terms] = Instances::of(60, 8, 10);
        $found = (new Splitter($lines, $terms, PHP_INT_MAX, 0.0))->solve();
        self::assertFalse($found['proven']);
        self::assertNotNull($found['ways']);
        $whole = (new Splitter($lines, $terms))->solve();
        self::assertTrue($whole['proven']);
        self::assertLessThanOrEqual($whole['cost'] + 0.005, $found['bound']);
        self::assertGreaterThanOrEqual($whole['cost'] - 0.005, $found['cost']);
    }

    public function test_nothing_to_buy_costs_nothing_and_what_nobody_has_is_bought_nowhere(): void
    {
        self::assertSame(0.0, (new Splitter([], []))->solve()['cost']);
        self::assertNull((new Splitter([[]], [[[1, 10 ** 15, 5.0, 1e-6]]]))->solve()['ways']);
    }

    /**
     * @param  list<list<array<int, int>>>  $lines
     * @param  list<list<array{int, int, float, float}>>  $terms
     */
    private static function everything(array $lines, array $terms, int $most): float
    {
        $least = INF;
        $counts = array_map(count(...), $lines);
        for ($n = 0, $all = array_product($counts); $n < $all; $n++) {
            $rest = $n;
            $ways = [];
            foreach ($counts as $count) {
                $ways[] = $rest % $count;
                $rest = intdiv($rest, $count);
            }
            if (count(self::taken($lines, $ways)) <= $most) {
                $least = min($least, self::of($lines, $terms, $ways));
            }
        }

        return $least;
    }

    /**
     * @param  list<list<array<int, int>>>  $lines
     * @param  list<list<array{int, int, float, float}>>  $terms
     * @param  list<int>  $ways
     */
    private static function of(array $lines, array $terms, array $ways): float
    {
        $cost = 0.0;
        foreach (self::taken($lines, $ways) as $s => $goods) {
            $cost += Instances::cost($terms[$s], $goods);
        }

        return $cost;
    }

    /**
     * @param  list<list<array<int, int>>>  $lines
     * @param  list<int>  $ways
     * @return array<int, int> goods by supplier
     */
    private static function taken(array $lines, array $ways): array
    {
        $taken = [];
        foreach ($ways as $i => $w) {
            foreach ($lines[$i][$w] as $s => $goods) {
                $taken[$s] = ($taken[$s] ?? 0) + $goods;
            }
        }

        return $taken;
    }
}
