<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** The cheapest way between two points, square to the directions, where going through channels costs less than outside. */
final readonly class Router
{
    /**
     * @param  array<string, Segment>  $segments
     * @param  float  $outside  what a millimetre outside costs, of one inside
     */
    public function __construct(private array $segments, private float $outside)
    {
    }

    /**
     * By Dijkstra over the points at which channels are entered and left: the ends, the feet of the ends on each channel, where
     * channels come nearest to each other, and the feet of all these on every other.
     *
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     */
    public function route(array $from, array $to): Run
    {
        [$points, $on] = $this->points($from, $to);
        $count = count($points);
        $cost = array_fill(0, $count, INF);
        $came = array_fill(0, $count, null);
        $done = array_fill(0, $count, false);
        $cost[0] = 0.0;
        for ($round = 0; $round < $count; $round++) {
            $at = -1;
            for ($i = 0; $i < $count; $i++) {
                if (! $done[$i] && $cost[$i] < INF && ($at < 0 || $cost[$i] < $cost[$at])) {
                    $at = $i;
                }
            }
            if ($at < 0 || $at === 1) {
                break;
            }
            $done[$at] = true;
            for ($i = 0; $i < $count; $i++) {
                if ($done[$i]) {
                    continue;
                }
                $way = self::apart($points[$at], $points[$i]);
                $new = $cost[$at] + $way * ($on[$at] !== null && $on[$at] === $on[$i] ? 1.0 : $this->outside);
                if ($new < $cost[$i] - 1e-9) {
                    [$cost[$i], $came[$i]] = [$new, $at];
                }
            }
        }

        return self::back($points, $on, $came);
    }

    /**
     * @param  list<array{float, float, float}>  $points
     * @param  list<string|null>  $on
     * @param  array<int, int|null>  $came
     */
    private static function back(array $points, array $on, array $came): Run
    {
        $outside = 0.0;
        $inside = [];
        $way = [$points[1]];
        for ($i = 1; $came[$i] !== null; $i = $came[$i]) {
            $before = $came[$i];
            $mm = self::apart($points[$before], $points[$i]);
            if ($on[$i] !== null && $on[$i] === $on[$before]) {
                $inside[$on[$i]] = ($inside[$on[$i]] ?? 0.0) + $mm;
            } else {
                $outside += $mm;
            }
            $way[] = $points[$before];
        }

        return new Run(
            $outside,
            array_reverse(array_filter($inside, static fn (float $mm): bool => $mm > 0), true),
            array_reverse($way),
        );
    }

    /**
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     * @return array{list<array{float, float, float}>, list<string|null>} and the channel each lies in
     */
    private function points(array $from, array $to): array
    {
        $points = [$from, $to];
        $on = [null, null];
        foreach ($this->segments as $key => $segment) {
            $own = [$segment->nearest($from), $segment->nearest($to)];
            foreach ($this->segments as $other => $with) {
                if ($other !== $key) {
                    array_push(
                        $own,
                        ...$segment->nearestTo($with),
                        ...[$segment->nearest($with->nearest($from)), $segment->nearest($with->nearest($to))],
                    );
                }
            }
            foreach (array_unique($own, SORT_REGULAR) as $point) {
                $points[] = $point;
                $on[] = (string) $key;
            }
        }

        return [$points, $on];
    }

    /**
     * @param  array{float, float, float}  $a
     * @param  array{float, float, float}  $b
     */
    private static function apart(array $a, array $b): float
    {
        return abs($a[0] - $b[0]) + abs($a[1] - $b[1]) + abs($a[2] - $b[2]);
    }
}
