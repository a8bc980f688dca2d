<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Random\Engine\Xoshiro256StarStar;

/**
 * How far the end may lie apart, by trying: each activity's days are drawn from the beta distribution of its three points
 * (PERT: shape 1 + 4 (m − a)/(b − a) and 1 + 4 (b − m)/(b − a)), the network is walked, and so some thousand times. Seeded:
 * the same seed gives the same days.
 */
final readonly class Spread
{
    public const SAMPLES = 10_000;

    /** Values a distribution is told by. */
    private const STEPS = 1024;

    /** @var list<float> days to the end, ascending */
    public array $ends;

    /** @var array<string, float> share of the spread that each activity makes, by key, largest first */
    public array $drivers;

    public function __construct(Network $network, int $seed = 1, int $samples = self::SAMPLES)
    {
        $place = $draws = $before = [];
        foreach ($network->order as $i => $activity) {
            $place[$activity->key] = $i;
            $draws[$i] = self::quantiles($activity);
            $before[$i] = [];
            foreach ($activity->after as $key) {
                if (isset($place[$key])) {
                    $before[$i][] = $place[$key];
                }
            }
        }
        $engine = new Xoshiro256StarStar($seed);
        $ends = [];
        $count = count($draws);
        $sum = $square = array_fill(0, $count, 0.0);
        $with = array_fill(0, $count, 0.0);
        $total = $totalSquare = 0.0;
        $bits = 0;
        $left = 0;
        for ($n = 0; $n < $samples; $n++) {
            $done = $days = [];
            $end = 0.0;
            foreach ($draws as $i => $table) {
                $begin = 0.0;
                foreach ($before[$i] as $b) {
                    if ($done[$b] > $begin) {
                        $begin = $done[$b];
                    }
                }
                if ($table === null) {
                    $took = $network->order[$i]->likely;
                } else {
                    if ($left === 0) {
                        /** @var array{1: int} $word */
                        $word = unpack('P', $engine->generate());
                        $bits = $word[1];
                        $left = 6;
                    }
                    $took = $table[$bits & 1023];
                    $bits >>= 10;
                    $left--;
                }
                $days[$i] = $took;
                $done[$i] = $begin + $took;
                if ($done[$i] > $end) {
                    $end = $done[$i];
                }
            }
            $ends[] = $end;
            $total += $end;
            $totalSquare += $end * $end;
            foreach ($days as $i => $took) {
                $sum[$i] += $took;
                $square[$i] += $took * $took;
                $with[$i] += $took * $end;
            }
        }
        sort($ends);
        $this->ends = $ends;
        $this->drivers = self::shares($network, $samples, $sum, $square, $with, [$total, $totalSquare]);
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
     * @param  array<int, float>  $sum
     * @param  array<int, float>  $square
     * @param  array<int, float>  $with
     * @param  array{float, float}  $end  sum and sum of squares of the end
     * @return array<string, float>
     */
    private static function shares(
        Network $network,
        int $samples,
        array $sum,
        array $square,
        array $with,
        array $end,
    ): array {
        $found = [];
        $spread = $end[1] - $end[0] ** 2 / max(1, $samples);
        foreach ($network->order as $i => $activity) {
            $own = $square[$i] - $sum[$i] ** 2 / max(1, $samples);
            $both = $with[$i] - ($sum[$i] * $end[0]) / max(1, $samples);
            if ($own > 1e-9 && $spread > 1e-9) {
                $found[$activity->key] = $both > 0 ? $both ** 2 / ($own * $spread) : 0.0;
            }
        }
        arsort($found);
        $all = array_sum($found);

        return $all > 0 ? array_map(static fn (float $r): float => $r / $all, $found) : [];
    }
}
