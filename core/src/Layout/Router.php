<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** The cheapest way between two points, square to the directions, where going through channels costs less than outside. */
final class Router
{
    /** How many sets of channels are kept with the ways found through them, and how many ways of each. */
    private const SETS = 4;

    private const KEPT = 2000;

    /** @var array<array-key, self> the last that were asked for, by their channels */
    private static array $last = [];

    /** @var array<string, Run> ways found, by their ends */
    private array $found = [];

    /** @var array<string, list<array{float, float, float}>> channel → where it comes nearest to the others */
    private array $crossings = [];

    /**
     * @param  array<string, Segment>  $segments
     * @param  float  $outside  what a millimetre outside costs, of one inside
     */
    public function __construct(private readonly array $segments, private readonly float $outside)
    {
        foreach ($segments as $key => $segment) {
            $this->crossings[$key] = [];
            foreach ($segments as $other => $with) {
                if ($other !== $key) {
                    array_push($this->crossings[$key], ...$segment->nearestTo($with));
                }
            }
        }
    }

    /**
     * One for such channels, with the ways it has found already: an edit leaves most ends where they are.
     *
     * @param  array<string, Segment>  $segments
     */
    public static function through(array $segments, float $outside): self
    {
        $key = (string) $outside;
        foreach ($segments as $name => $segment) {
            $key .= "/{$name} {$segment->along} {$segment->to} ".implode(' ', $segment->from);
        }
        $router = self::$last[$key] ?? new self($segments, $outside);
        // The last one asked for stands last, the one that was not asked for the longest goes.
        unset(self::$last[$key]);
        self::$last = array_slice(self::$last, 1 - self::SETS, null, true) + [$key => $router];

        return $router;
    }

    /**
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     */
    public function route(array $from, array $to): Run
    {
        $ends = implode(' ', [...$from, ...$to]);
        if (! isset($this->found[$ends])) {
            $this->found = count($this->found) < self::KEPT ? $this->found : [];
            $this->found[$ends] = $this->find($from, $to);
        }

        return $this->found[$ends];
    }

    /**
     * By Dijkstra over the points at which channels are entered and left: the ends, the feet of the ends on each channel, where
     * channels come nearest to each other, and the feet of all these on every other.
     *
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     */
    private function find(array $from, array $to): Run
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
            $own = [$segment->nearest($from), $segment->nearest($to), ...$this->crossings[$key]];
            foreach ($this->segments as $other => $with) {
                if ($other !== $key) {
                    array_push($own, $segment->nearest($with->nearest($from)), $segment->nearest($with->nearest($to)));
                }
            }
            // Along a channel its points differ in one number alone.
            $seen = [];
            foreach ($own as $point) {
                $at = (string) $point[$segment->along];
                if (! isset($seen[$at])) {
                    $seen[$at] = true;
                    $points[] = $point;
                    $on[] = (string) $key;
                }
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
