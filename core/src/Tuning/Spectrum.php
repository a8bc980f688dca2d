<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/**
 * Power spectral density of a signal: overlapping windowed segments, averaged (Welch, "The use of fast Fourier transform for the
 * estimation of power spectra", 1967; from memory). Two real segments go through one complex transform.
 */
final readonly class Spectrum
{
    /** Segments are shorter than this share of the signal, so that there are some to average. */
    private const LEAST = 8;

    /** Damping above which a top is no resonance. */
    private const BROAD = 0.35;

    /** Times the width that window and mean make of a steady tone, above which a width is the machine's. */
    private const CLEARLY = 1.5;

    /** Peaks below this share of the highest are noise. */
    private const FAINT = 0.02;

    /**
     * @param  list<float>  $density  in the square of the unit for one hertz, from 0 Hz
     * @param  float  $step  Hz from one to the next
     * @param  int  $segments  that were averaged
     */
    private function __construct(public array $density, public float $step, public int $segments)
    {
    }

    /**
     * @param  list<float>  $signal
     * @param  float  $rate  samples a second
     * @param  int|null  $segment  samples of one segment, a power of two; chosen for a resolution of about half a hertz where null
     *
     * @throws CannotTune
     */
    public static function of(array $signal, float $rate, ?int $segment = null): self
    {
        $n = count($signal);
        if ($n < 64) {
            throw new CannotTune("there are {$n} samples; a spectrum needs 64 at least.");
        }
        if ($rate <= 0 || ! is_finite($rate)) {
            throw new CannotTune('the time between samples is nothing.');
        }
        $size =
            $segment ??
            min(Fourier::atLeast((int) ($rate * 2)), Fourier::atLeast((int) max(64, $n / self::LEAST) + 1) >> 1);
        $size = max(64, min($size, Fourier::atLeast($n + 1) >> 1));
        $window = [];
        $power = 0.0;
        for ($i = 0; $i < $size; $i++) {
            // Hann, periodic.
            $window[$i] = 0.5 - 0.5 * cos((2 * M_PI * $i) / $size);
            $power += $window[$i] ** 2;
        }
        $sum = array_fill(0, ($size >> 1) + 1, 0.0);
        $segments = 0;
        // One as short as a segment has just the one.
        $starts = $n - $size < $size >> 1 ? [0] : range(0, $n - $size, $size >> 1);
        foreach (array_chunk($starts, 2) as $pair) {
            $re = self::windowed($signal, $pair[0], $window, $size);
            $im = isset($pair[1]) ? self::windowed($signal, $pair[1], $window, $size) : array_fill(0, $size, 0.0);
            Fourier::transform($re, $im);
            for ($k = 0; $k <= $size >> 1; $k++) {
                // The two real spectra come apart by symmetry; the sum of their powers is half of |F_k|² + |F_−k|².
                $m = ($size - $k) % $size;
                $sum[$k] += ($re[$k] ** 2 + $im[$k] ** 2 + $re[$m] ** 2 + $im[$m] ** 2) / 2;
            }
            $segments += count($pair);
        }
        $density = [];
        foreach ($sum as $k => $one) {
            $density[] = ($one * ($k === 0 || $k === $size >> 1 ? 1 : 2)) / ($segments * $rate * $power);
        }

        return new self($density, $rate / $size, $segments);
    }

    /**
     * @param  list<float>  $signal
     * @param  array<int, float>  $window
     * @return array<int, float> without its mean
     */
    private static function windowed(array $signal, int $start, array $window, int $size): array
    {
        $part = array_slice($signal, $start, $size);
        $mean = array_sum($part) / $size;
        foreach ($part as $i => $value) {
            $part[$i] = ($value - $mean) * $window[$i];
        }

        return $part;
    }

    /**
     * The peaks, the highest first: each with its frequency between the lines (parabola through three, of the logarithm), its
     * damping from its half-power width, ζ = Δf / 2f₀, and its share of all power.
     *
     * @param  float  $from  Hz, below which nothing is looked for
     * @return list<Peak>
     */
    public function peaks(int $most = 4, float $from = 5.0, float $to = INF): array
    {
        $n = count($this->density);
        $first = max(2, (int) ceil($from / $this->step));
        $last = (int) min($n - 3, floor(min($to, $this->step * $n) / $this->step));
        if ($last <= $first) {
            return [];
        }
        $part = array_slice($this->density, $first, $last - $first + 1);
        $top = max([0.0, ...$part]);
        $whole = array_sum($part);
        $peaks = [];
        for ($k = $first; $k <= $last; $k++) {
            $here = $this->density[$k];
            $isTop = true;
            for ($j = $k - 2; $j <= $k + 2; $j++) {
                $isTop =
                    $isTop && ($j === $k || $this->density[$j] < $here || ($this->density[$j] === $here && $j > $k));
            }
            if ($isTop && $here > self::FAINT * $top && $top > 0) {
                $peaks[] = $this->peak($k, $whole);
            }
        }
        usort($peaks, static fn (Peak $a, Peak $b): int => $b->height <=> $a->height);

        // A rough top is one resonance, not several.
        $apart = [];
        foreach ($peaks as $peak) {
            // What is as broad as it is high in frequency is the foot of another.
            $isNew = $peak->damping < self::BROAD;
            foreach ($apart as $higher) {
                $width = max(0.04, 3 * $higher->damping) * $higher->frequency;
                $isNew = $isNew && abs($peak->frequency - $higher->frequency) > $width;
            }
            if ($isNew) {
                $apart[] = $peak;
            }
        }

        return array_slice($apart, 0, $most);
    }

    private function peak(int $k, float $whole): Peak
    {
        [$a, $b, $c] = array_map(fn (int $i): float => log(max(1e-300, $this->density[$i])), [$k - 1, $k, $k + 1]);
        $bend = $a - 2 * $b + $c;
        $off = $bend < 0 ? (0.5 * ($a - $c)) / $bend : 0.0;
        $frequency = ($k + max(-0.5, min(0.5, $off))) * $this->step;
        // The width is told from a smoothed line: a single one of few segments is as rough as it is high.
        $near = max(1, (int) round((0.015 * $frequency) / $this->step));
        $smooth = $this->smoothed($k, $near);
        $left = $this->crossing($k, -1, $smooth / 2, $near);
        $right = $this->crossing($k, 1, $smooth / 2, $near);
        // The window itself is 1.44 lines wide at half power (Hann), and the mean of some lines as wide as they are many; only what
        // is clearly wider is damping. Of a narrower one no more is known than that it is less.
        $own = sqrt(1.44 ** 2 + (2 * $near) ** 2) * $this->step;
        $seen = $right - $left;
        $isKnown = $seen > self::CLEARLY * $own;
        $width = $isKnown ? sqrt($seen ** 2 - $own ** 2) : $seen;
        $share = 0.0;
        for ($i = (int) floor($left / $this->step); $i <= (int) ceil($right / $this->step); $i++) {
            $share += $this->density[$i] ?? 0.0;
        }

        return new Peak(
            $frequency,
            $this->density[$k],
            $frequency > 0 ? $width / (2 * $frequency) : 0.0,
            $whole > 0 ? min(1.0, $share / $whole) : 0.0,
            $isKnown,
        );
    }

    /** The mean of some lines about one. */
    private function smoothed(int $k, int $near): float
    {
        $sum = 0.0;
        for ($i = $k - $near; $i <= $k + $near; $i++) {
            $sum += $this->density[$i] ?? 0.0;
        }

        return $sum / (2 * $near + 1);
    }

    /** Where the smoothed density falls to a value, going one way from a line. */
    private function crossing(int $k, int $way, float $value, int $near): float
    {
        $i = $k;
        while (isset($this->density[$i + $way]) && $this->smoothed($i + $way, $near) > $value) {
            $i += $way;
        }
        $next = $this->smoothed($i + $way, $near);
        $here = $this->smoothed($i, $near);
        $part = $here > $next ? ($here - $value) / ($here - $next) : 0.0;

        return ($i + $way * $part) * $this->step;
    }
}
