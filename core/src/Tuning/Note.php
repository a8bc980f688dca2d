<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/**
 * The note of a plucked belt: its pitch found in the sound by autocorrelation of what is loud, refined by a parabola; and the tension
 * that belongs to it, f = √(T/µ) / 2L (C9 of the handbook).
 */
final readonly class Note
{
    private const LOWEST = 15.0;

    private const HIGHEST = 1500.0;

    /** A lag is taken where it agrees so well with the best: the first of several is the note, the later ones lie an octave down. */
    private const NEARLY = 0.9;

    /** Below this much agreement there is no note. */
    private const CLEAR = 0.45;

    /** From so much agreement on, every note of the test set, hiss and hum in it or not, is right to a hundredth. */
    public const RIGHT = 0.95;

    /**
     * @param  float  $off  share by which it may be off, from how the repeats of its wave differ
     */
    private function __construct(public float $frequency, public float $clearness, public float $off)
    {
    }

    /**
     * @param  list<float>  $sound
     * @param  float  $rate  samples a second
     *
     * @throws CannotTune
     */
    public static function heard(array $sound, float $rate): self
    {
        $n = count($sound);
        if ($n < $rate / 10) {
            throw new CannotTune('the sound is shorter than a tenth of a second.');
        }
        // The loudest half second, from where it sets in.
        $block = max(1, (int) ($rate / 50));
        $loudest = $at = 0;
        for ($i = 0; $i + $block <= $n; $i += $block) {
            $power = 0.0;
            for ($j = $i; $j < $i + $block; $j++) {
                $power += $sound[$j] ** 2;
            }
            if ($power > $loudest) {
                [$loudest, $at] = [$power, $i];
            }
        }
        if ($loudest <= 0) {
            throw new CannotTune('there is no sound in it.');
        }
        $part = array_slice($sound, $at, (int) ($rate / 2));
        $mean = array_sum($part) / max(1, count($part));
        $part = array_map(static fn (float $v): float => $v - $mean, $part);

        return self::pitch($part, $rate);
    }

    /** Share by which it may be off, where it is not clear enough to be right to a hundredth; null where it is. */
    public function doubt(): ?float
    {
        return $this->clearness >= self::RIGHT ? null : max(0.01, round($this->off, 3));
    }

    /** What has to be said of a note that is not clear; null of one that is. */
    public function says(): ?string
    {
        $doubt = $this->doubt();

        return $doubt === null
            ? null
            : sprintf(
                'Not a clear note: it may be off by %.2g %%, and the tension by %.2g %%; or it is a hum in the room. Pluck the belt again with all else quiet.',
                100 * $doubt,
                200 * $doubt,
            );
    }

    /**
     * @param  list<float>  $part
     *
     * @throws CannotTune
     */
    private static function pitch(array $part, float $rate): self
    {
        $n = count($part);
        $longest = (int) min($n / 2, $rate / self::LOWEST);
        $shortest = max(2, (int) ($rate / self::HIGHEST));
        if ($longest <= $shortest + 2) {
            throw new CannotTune('the sound ends too soon to tell its note.');
        }
        $agreement = self::agreement($part, $longest + 1);
        $best = $shortest;
        // Past the first fall below nothing; before it a sound agrees with itself.
        $first = $shortest;
        while ($first < $longest && $agreement[$first] > 0) {
            $first++;
        }
        for ($lag = $best = $first; $lag < $longest; $lag++) {
            $best = $agreement[$lag] > $agreement[$best] ? $lag : $best;
        }
        if ($agreement[$best] < self::CLEAR) {
            throw new CannotTune('no note stands out: pluck it once, near the middle, with all else quiet.');
        }
        for ($lag = $first + 1; $lag < $best; $lag++) {
            if (
                $agreement[$lag] > self::NEARLY * $agreement[$best] &&
                $agreement[$lag] >= $agreement[$lag - 1] &&
                $agreement[$lag] >= $agreement[$lag + 1]
            ) {
                $best = $lag;
                break;
            }
        }

        return self::refined($agreement, $best, $longest, $rate);
    }

    /**
     * The wave repeats: where it agrees with itself two, three, four times as late tells its length two, three, four times as well. The
     * later ones are taken as long as they agree nearly as well as the first; how they differ tells how far it may be off.
     *
     * @param  list<float>  $agreement
     */
    private static function refined(array $agreement, int $best, int $longest, float $rate): self
    {
        $length = self::top($agreement, $best);
        $lengths = [$length];
        for ($k = 2; ($k + 0.3) * $length < $longest; $k++) {
            $reach = max(2, (int) ceil(0.12 * $length));
            $near = (int) round($k * $length);
            $at = $near;
            for ($lag = max(2, $near - $reach); $lag <= min($longest - 1, $near + $reach); $lag++) {
                $at = $agreement[$lag] > $agreement[$at] ? $lag : $at;
            }
            if ($agreement[$at] < self::NEARLY * $agreement[$best]) {
                break;
            }
            $lengths[] = $length = self::top($agreement, $at) / $k;
        }
        $spread = count($lengths) < 3
            ? 1 - $agreement[$best]
            : (max($lengths) - min($lengths)) / $length / 2;

        return new self($rate / $length, $agreement[$best], $spread);
    }

    /**
     * Where a top lies between the samples, by a parabola through three.
     *
     * @param  list<float>  $agreement
     */
    private static function top(array $agreement, int $at): float
    {
        [$a, $b, $c] = [$agreement[$at - 1], $agreement[$at], $agreement[$at + 1] ?? $agreement[$at - 1]];
        $bend = $a - 2 * $b + $c;

        return $at + ($bend < 0 ? max(-0.5, min(0.5, (0.5 * ($a - $c)) / $bend)) : 0.0);
    }

    /**
     * How well the sound agrees with itself some samples later, −1 to 1: by way of the power spectrum, each lag by what overlaps.
     *
     * @param  list<float>  $part
     * @return list<float> by lag
     */
    private static function agreement(array $part, int $lags): array
    {
        $n = count($part);
        $size = Fourier::atLeast(2 * $n);
        $re = array_pad($part, $size, 0.0);
        $im = array_fill(0, $size, 0.0);
        Fourier::transform($re, $im);
        for ($k = 0; $k < $size; $k++) {
            [$re[$k], $im[$k]] = [$re[$k] ** 2 + $im[$k] ** 2, 0.0];
        }
        Fourier::transform($re, $im);
        $before = [0.0];
        foreach ($part as $i => $v) {
            $before[$i + 1] = $before[$i] + $v ** 2;
        }
        $agreement = [];
        for ($lag = 0; $lag <= $lags && $lag < $n; $lag++) {
            $power = $before[$n - $lag] + $before[$n] - $before[$lag];
            $agreement[] = $power > 0 ? (2 * $re[$lag]) / $size / $power : 0.0;
        }

        return $agreement;
    }

    /**
     * Tension in a belt or string of a note.
     *
     * @param  float  $frequency  Hz
     * @param  float  $span  free length, m
     * @param  float  $mass  of one metre, kg
     */
    public static function tension(float $frequency, float $span, float $mass): float
    {
        return 4 * $mass * $span ** 2 * $frequency ** 2;
    }

    /** The note of a tension, Hz. */
    public static function of(float $tension, float $span, float $mass): float
    {
        return sqrt($tension / $mass) / (2 * $span);
    }
}
