<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** A box along the directions of the machine, in millimetres: x to the right, y to the back, z up. */
final readonly class Box
{
    /**
     * @param  array{float, float, float}  $low
     * @param  array{float, float, float}  $high
     */
    public function __construct(public array $low, public array $high)
    {
    }

    public function size(int $d): float
    {
        return $this->high[$d] - $this->low[$d];
    }

    public function middle(int $d): float
    {
        return ($this->low[$d] + $this->high[$d]) / 2;
    }

    /**
     * @return array{float, float, float}
     */
    public function centre(): array
    {
        return [$this->middle(0), $this->middle(1), $this->middle(2)];
    }

    /**
     * @param  array{float, float, float}  $by
     */
    public function moved(array $by): self
    {
        [$low, $high] = [$this->low, $this->high];

        return new self(
            [$low[0] + $by[0], $low[1] + $by[1], $low[2] + $by[2]],
            [$high[0] + $by[0], $high[1] + $by[1], $high[2] + $by[2]],
        );
    }

    /** Longer on one side. */
    public function reaching(int $d, bool $low, float $by): self
    {
        $step = [$d === 0 ? $by : 0.0, $d === 1 ? $by : 0.0, $d === 2 ? $by : 0.0];

        return $this->with($this->moved($low ? [-$step[0], -$step[1], -$step[2]] : $step));
    }

    public function with(self $other): self
    {
        return new self(
            [
                min($this->low[0], $other->low[0]),
                min($this->low[1], $other->low[1]),
                min($this->low[2], $other->low[2]),
            ],
            [
                max($this->high[0], $other->high[0]),
                max($this->high[1], $other->high[1]),
                max($this->high[2], $other->high[2]),
            ],
        );
    }

    /** Gap to another along the direction in which they are farthest apart; below nought where they overlap. */
    public function gap(self $other): float
    {
        return max(
            $this->low[0] - $other->high[0],
            $other->low[0] - $this->high[0],
            $this->low[1] - $other->high[1],
            $other->low[1] - $this->high[1],
            $this->low[2] - $other->high[2],
            $other->low[2] - $this->high[2],
        );
    }

    public function overlaps(self $other): bool
    {
        return $this->gap($other) < -1e-6;
    }

    /** How far another sticks out of it, at the most in one direction; nought where it does not. */
    public function overhang(self $inner): float
    {
        $most = 0.0;
        foreach ([0, 1, 2] as $d) {
            $most = max($most, $this->low[$d] - $inner->low[$d], $inner->high[$d] - $this->high[$d]);
        }

        return $most;
    }

    /**
     * The point of it that is nearest to a point.
     *
     * @param  array{float, float, float}  $point
     * @return array{float, float, float}
     */
    public function nearest(array $point): array
    {
        foreach ([0, 1, 2] as $d) {
            $point[$d] = max($this->low[$d], min($this->high[$d], $point[$d]));
        }

        return $point;
    }
}
