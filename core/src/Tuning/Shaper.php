<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/**
 * A filter of impulses that leaves a resonance still: two or three of them, each half a damped period after the other (Singer and
 * Seering, "Preshaping command inputs to reduce system vibration", 1990; from memory).
 */
final readonly class Shaper
{
    /**
     * @param  list<float>  $amplitudes  they add up to one
     * @param  list<float>  $times  s
     */
    private function __construct(public string $name, public array $amplitudes, public array $times)
    {
    }

    /** K = exp(−ζπ / √(1 − ζ²)): what is left of a swing after half a period. */
    private static function left(float $damping): float
    {
        return exp((-$damping * M_PI) / sqrt(1 - $damping ** 2));
    }

    private static function half(float $frequency, float $damping): float
    {
        return 1 / (2 * $frequency * sqrt(1 - $damping ** 2));
    }

    /**
     * @throws CannotTune
     */
    private static function check(float $frequency, float $damping): void
    {
        if ($frequency <= 0 || $damping < 0 || $damping >= 0.9) {
            throw new CannotTune('a filter needs a frequency above nothing, and a damping below 0.9.');
        }
    }

    /**
     * @throws CannotTune
     */
    public static function two(float $frequency, float $damping): self
    {
        self::check($frequency, $damping);
        $k = self::left($damping);

        return new self('two impulses', [1 / (1 + $k), $k / (1 + $k)], [0.0, self::half($frequency, $damping)]);
    }

    /**
     * @throws CannotTune
     */
    public static function three(float $frequency, float $damping): self
    {
        self::check($frequency, $damping);
        $k = self::left($damping);
        $whole = (1 + $k) ** 2;
        $half = self::half($frequency, $damping);

        return new self('three impulses', [1 / $whole, (2 * $k) / $whole, $k ** 2 / $whole], [0.0, $half, 2 * $half]);
    }

    /** Vibration that is left at a frequency, as a share of that without the filter. */
    public function residual(float $frequency, float $damping): float
    {
        $omega = 2 * M_PI * $frequency;
        $damped = $omega * sqrt(max(0.0, 1 - $damping ** 2));
        $last = $this->times[count($this->times) - 1];
        $c = $s = 0.0;
        foreach ($this->amplitudes as $i => $a) {
            $grown = $a * exp($damping * $omega * $this->times[$i]);
            $c += $grown * cos($damped * $this->times[$i]);
            $s += $grown * sin($damped * $this->times[$i]);
        }

        return exp(-$damping * $omega * $last) * hypot($c, $s);
    }

    /** The worst of some frequencies about one: a machine is never twice the same. */
    public function worstAbout(float $frequency, float $damping, float $share = 0.1): float
    {
        $worst = 0.0;
        for ($i = -10; $i <= 10; $i++) {
            $worst = max($worst, $this->residual($frequency * (1 + ($share * $i) / 10), $damping));
        }

        return $worst;
    }

    /** How far a corner is rounded for an acceleration of one: ½·ΣA(t − t̄)², s². */
    public function smoothing(): float
    {
        $mean = $sum = 0.0;
        foreach ($this->amplitudes as $i => $a) {
            $mean += $a * $this->times[$i];
        }
        foreach ($this->amplitudes as $i => $a) {
            $sum += $a * ($this->times[$i] - $mean) ** 2;
        }

        return $sum / 2;
    }

    /** The acceleration at which it rounds a corner by no more than is accepted, in the unit of that for a square second. */
    public function acceleration(float $accepted): float
    {
        $smoothing = $this->smoothing();

        return $smoothing > 0 ? $accepted / $smoothing : INF;
    }

    /** Seconds it takes longer. */
    public function delay(): float
    {
        return $this->times[count($this->times) - 1];
    }
}
