<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

/**
 * How far the end may lie apart, by trying: each activity's days are drawn from the beta distribution of its three points
 * (PERT: shape 1 + 4 (m − a)/(b − a) and 1 + 4 (b − m)/(b − a)), the network is walked, and so some thousand times. Seeded:
 * the same seed gives the same days.
 */
final readonly class Spread
{
    public const SAMPLES = 10_000;

    /** Tries from which is told what spreads the end. */
    private const TOLD = 2_000;

    /** Values a distribution is told by. */
    private const STEPS = 1024;

    /** @var list<float> days to the end, ascending */
    public array $ends;

    /** @var array<string, float> share of the spread that each activity makes, by key, largest first */
    public array $drivers;

    public function __construct(Network $network, int $seed = 1, int $samples = self::SAMPLES)
    {
        // Marsaglia's xorshift on 64 bits ("Xorshift RNGs", 2003, from memory), begun from the seed.
        $word = ((crc32("days {$seed}") << 31) ^ crc32("{$seed} tries")) | 1;
        $last = [];
        foreach ($network->order as $i => $activity) {
            foreach ($activity->after as $key) {
                $last[$key] = $i;
            }
        }
        $ends = $samples > 0 ? array_fill(0, $samples, 0.0) : [];
        $done = $days = [];
        // Activity by activity, all tries of it at once; what nothing waits for any more is let go.
        foreach ($network->order as $i => $activity) {
            $begins = self::latest(array_values(array_intersect_key($done, array_flip($activity->after))), $samples);
            [$finished, $days[$activity->key]] = self::tried($activity, $begins, $word);
            if (isset($last[$activity->key])) {
                $done[$activity->key] = $finished;
            } else {
                $ends = self::latest([$ends, $finished], $samples);
            }
            foreach ($activity->after as $key) {
                if ($last[$key] === $i) {
                    unset($done[$key]);
                }
            }
        }
        $this->drivers = self::shares($days, array_slice($ends, 0, self::TOLD));
        sort($ends);
        $this->ends = $ends;
    }

    /**
     * @param  list<list<float>>  $columns
     * @return list<float> the latest of each try
     */
    private static function latest(array $columns, int $samples): array
    {
        $latest = array_shift($columns) ?? ($samples > 0 ? array_fill(0, $samples, 0.0) : []);
        foreach ($columns as $column) {
            foreach ($column as $n => $day) {
                if ($day > $latest[$n]) {
                    $latest[$n] = $day;
                }
            }
        }

        return $latest;
    }

    /**
     * @param  list<float>  $begins
     * @return array{list<float>, list<float>} when each try of it is done, and how long the first of them took
     */
    private static function tried(Activity $activity, array $begins, int &$word): array
    {
        $table = self::quantiles($activity);
        if ($table === null) {
            $took = $activity->likely;

            return [array_map(static fn (float $begin): float => $begin + $took, $begins), []];
        }
        $done = $first = [];
        $bits = $left = 0;
        foreach ($begins as $n => $begin) {
            if ($left === 0) {
                $word ^= $word << 13;
                $word ^= ($word >> 7) & 0x01FFFFFFFFFFFFFF;
                $word ^= $word << 17;
                $bits = $word;
                $left = 6;
            }
            $took = $table[$bits & 1023];
            $bits >>= 10;
            $left--;
            $done[] = $begin + $took;
            if ($n < self::TOLD) {
                $first[] = $took;
            }
        }

        return [$done, $first];
    }

    /** Days within which it is done in such a share of the tries. */
    public function within(float $share): float
    {
        return $this->ends === []
            ? 0.0
            : $this->ends[(int) min(count($this->ends) - 1, ceil($share * count($this->ends)) - 1)];
    }

    /**
     * Days in equal steps of likelihood, at the middle of each; null where they are always the same.
     *
     * @return list<float>|null
     */
    public static function quantiles(Activity $activity): ?array
    {
        $width = $activity->most - $activity->least;
        if ($width <= 0.0) {
            return null;
        }
        $alpha = 1 + (4 * ($activity->likely - $activity->least)) / $width;
        $beta = 1 + (4 * ($activity->most - $activity->likely)) / $width;
        // The density, summed up in small steps, turned round.
        $fine = 2 * self::STEPS;
        $sums = [0.0];
        for ($k = 0; $k < $fine; $k++) {
            $x = ($k + 0.5) / $fine;
            $sums[] = $sums[$k] + $x ** ($alpha - 1) * (1 - $x) ** ($beta - 1);
        }
        $whole = $sums[$fine];
        $found = [];
        for ($q = 0, $k = 0; $q < self::STEPS; $q++) {
            $wanted = (($q + 0.5) / self::STEPS) * $whole;
            while ($sums[$k + 1] < $wanted) {
                $k++;
            }
            $share = ($wanted - $sums[$k]) / ($sums[$k + 1] - $sums[$k]);
            $found[] = $activity->least + ($width * ($k + $share)) / $fine;
        }

        return $found;
    }

    /**
     * How much of the end's spread goes with each activity: the square of their correlation, of all of them together.
     *
     * @param  array<string, list<float>>  $days  of the first tries, by activity
     * @param  list<float>  $ends
     * @return array<string, float>
     */
    private static function shares(array $days, array $ends): array
    {
        $count = max(1, count($ends));
        $middle = array_sum($ends) / $count;
        $apart = array_map(static fn (float $end): float => $end - $middle, $ends);
        $spread = array_sum(array_map(static fn (float $x): float => $x * $x, $apart));
        $found = [];
        foreach ($days as $key => $tries) {
            $mean = array_sum($tries) / $count;
            $own = $both = 0.0;
            foreach ($tries as $n => $took) {
                $own += ($took - $mean) ** 2;
                $both += ($took - $mean) * $apart[$n];
            }
            if ($own > 1e-9 && $spread > 1e-9) {
                $found[$key] = $both > 0 ? $both ** 2 / ($own * $spread) : 0.0;
            }
        }
        arsort($found);
        $all = array_sum($found);

        return $all > 0 ? array_map(static fn (float $r): float => $r / $all, $found) : [];
    }
}
