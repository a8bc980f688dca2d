<?php

declare(strict_types=1);

namespace Magpie\Core\Work;

use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;

/**
 * What a second build of a design took beside the first, at the steps both have done: the n-th of a kind takes T₁·n^(log₂ b), so
 * that each doubling takes the share b of before (Wright 1936, from memory).
 */
final readonly class Learning
{
    /** Steps that both have done, before anything is said. */
    private const STEPS = 3;

    /**
     * @param  float  $first  hours of the steps both have done, in the first build
     * @param  float  $second  in the second
     */
    private function __construct(public int $steps, public float $first, public float $second)
    {
    }

    /**
     * @param  array<string, Step>  $first
     * @param  array<string, Step>  $second
     * @return self|null when they share too little
     */
    public static function between(array $first, array $second): ?self
    {
        $own = self::done($second);
        $steps = 0;
        $before = $after = 0.0;
        foreach (self::done($first) as $name => $hours) {
            if (isset($own[$name])) {
                $steps++;
                $before += $hours;
                $after += $own[$name];
            }
        }

        return $steps < self::STEPS ? null : new self($steps, $before, $after);
    }

    /** The share that a doubling takes of before. */
    public function rate(): float
    {
        return $this->second / $this->first;
    }

    /** Hours of the n-th, going on as the first two did. */
    public function nth(int $n): float
    {
        return self::curve($this->first, $this->rate(), $n);
    }

    public static function curve(float $first, float $rate, int $n): float
    {
        return $first * $n ** log($rate, 2);
    }

    /**
     * @return array{steps: int, first: float, second: float, rate: float, third: float}
     */
    public function toArray(): array
    {
        return [
            'steps' => $this->steps,
            'first' => round($this->first, 1),
            'second' => round($this->second, 1),
            'rate' => round($this->rate(), 2),
            'third' => round($this->nth(3), 1),
        ];
    }

    /**
     * @param  array<string, Step>  $steps
     * @return array<string, float> hours by what of the model it follows from, or by its title
     */
    private static function done(array $steps): array
    {
        $hours = [];
        foreach ($steps as $step) {
            $worked = $step->worked(0)->in('h');
            if ($step->state === StepState::Done && $worked > 0) {
                $hours[$step->derived ?? $step->title] = $worked;
            }
        }

        return $hours;
    }
}
