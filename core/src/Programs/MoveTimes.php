<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

/**
 * What moves take in time, with their rise and fall: each waits for the next, since only that says how fast it may be
 * left.
 */
final class MoveTimes
{
    /** Corners sharper than this stop the machine: the cosine of the turn. */
    private const SHARP = 0.2;

    /** What is as fast as nobody knows takes no time, mm/s. */
    private const BOUNDLESS = 1e9;

    /** Seconds of all moves. */
    public float $seconds = 0.0;

    /** Seconds in which the tool was on. */
    public float $toolSeconds = 0.0;

    /**
     * @var array{array{float, float, float}, float, float, float, bool}|null direction, mm, mm/s, mm/s² of the last
     * move, and whether the tool was on
     */
    private ?array $waiting = null;

    private float $entry = 0.0;

    /**
     * @param  array{float, float, float}  $direction  of length one
     * @param  float  $length  mm
     * @param  float  $speed  mm/min, as fast as it may be
     * @param  float  $rise  mm/s²
     * @param  bool  $isOn  whether the tool is on
     */
    public function move(array $direction, float $length, float $speed, float $rise, bool $isOn): void
    {
        $this->pass($direction);
        $speed = is_finite($speed) ? max(1e-6, $speed / 60) : self::BOUNDLESS;
        $this->waiting = [$direction, $length, $speed, $rise, $isOn];
    }

    public function wait(float $seconds, bool $isOn): void
    {
        $this->seconds += $seconds;
        $this->toolSeconds += $isOn ? $seconds : 0.0;
    }

    public function stop(): void
    {
        $this->pass(null);
        $this->entry = 0.0;
    }

    /**
     * The move that waits is done, and left as fast as the corner lets it.
     *
     * @param  array{float, float, float}|null  $next  direction of what follows; null where it stops
     */
    private function pass(?array $next): void
    {
        if ($this->waiting === null) {
            return;
        }
        [$unit, $length, $speed, $rise, $isOn] = $this->waiting;
        $this->waiting = null;
        if ($speed >= self::BOUNDLESS) {
            $this->entry = 0.0;

            return;
        }
        $corner = $next === null ? -1.0 : $unit[0] * $next[0] + $unit[1] * $next[1] + $unit[2] * $next[2];
        $exit = $corner <= self::SHARP ? 0.0 : ($speed * ($corner - self::SHARP)) / (1 - self::SHARP);
        if (! is_finite($rise)) {
            $this->entry = $exit;
            $this->wait($length / $speed, $isOn);

            return;
        }
        $in = min($this->entry, $speed);
        $this->entry = min($exit, sqrt($in ** 2 + 2 * $rise * $length));
        $this->wait(self::trapeze($length, $speed, $rise, $in, $this->entry), $isOn);
    }

    /** Seconds of a move that comes in at one speed and leaves at another, and reaches its own between if it is long enough. */
    private static function trapeze(float $length, float $speed, float $rise, float $in, float $out): float
    {
        $top = sqrt($rise * $length + ($in ** 2 + $out ** 2) / 2);
        if ($top < $speed) {
            return max(0.0, (2 * max($top, $in, $out) - $in - $out) / $rise);
        }

        return ($speed - $in) / $rise +
            ($speed - $out) / $rise +
            ($length - (2 * $speed ** 2 - $in ** 2 - $out ** 2) / (2 * $rise)) / $speed;
    }
}
