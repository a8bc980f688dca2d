<?php

declare(strict_types=1);

namespace Magpie\Core\Work;

use DateTimeImmutable;
use Magpie\Core\Machine\Plan;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Quantity\Quantity;

/**
 * Hours still to work and the day they end, from the builder's own pace: hours worked over guide hours of steps done.
 * Open steps without guide hours count for nothing and are told: where there are any, both are the least.
 */
final readonly class Forecast
{
    /** Steps done, and guide hours of them, from which a builder's own pace is taken. Common practice, no source. */
    private const STEPS = 3;

    private const HOURS = 1.0;

    /** Nobody takes less than a fifth of what a guide gives. */
    private const QUICKEST = 0.2;

    private function __construct(
        public Quantity $left,
        public Quantity $pace,
        public string $paceFrom,
        public ?string $date,
        public int $unguided,
    ) {
    }

    /**
     * @param  array<string, Step>  $steps
     * @param  DateTimeImmutable  $now  the day it is asked
     */
    public static function of(array $steps, Plan $plan, DateTimeImmutable $now): self
    {
        $guide = $worked = $left = Quantity::of(0, 'h');
        $unguided = $done = 0;
        foreach ($steps as $step) {
            $spent = $step->worked($now->getTimestamp())->to('h');
            if ($step->state === StepState::Done && $step->guide !== null && $spent->isPositive()) {
                $guide = $guide->plus($step->guide);
                $worked = $worked->plus($spent);
                $done++;
            }
            if ($step->state === StepState::Open) {
                $left = $step->guide === null ? $left : $left->plus($step->guide);
                $unguided += $step->guide === null ? 1 : 0;
            }
        }
        // A step or two says nothing of a pace, nor does a clock that was started and stopped.
        $known = $done >= self::STEPS && $guide->exceeds(Quantity::of(self::HOURS, 'h'));
        $own = $known ? Quantity::max(Quantity::ratio(self::QUICKEST), $worked->over($guide)) : null;
        [$pace, $from] = match (true) {
            $own !== null => [$own, 'own hours'],
            $plan->pace !== null => [$plan->pace, 'the plan'],
            default => [Quantity::ratio(1), 'the guide'],
        };
        $left = $left->times($pace);
        $date = null;
        // Where nothing is left, or nobody says how long what is left takes, there is no day to name.
        if ($left->isPositive() && $plan->weekly !== null && $plan->weekly->isPositive()) {
            $days = ceil($left->over($plan->weekly)->in('') * 7 - 1e-9);
            // Nobody plans past a hundred years: at such a pace there is no day to name.
            $date = $days > 36_500 ? null : $now->modify(sprintf('+%d days', $days))->format('Y-m-d');
        }

        return new self($left, $pace, $from, $date, $unguided);
    }

    /**
     * @return array{hours_left: float, pace: float, pace_from: string, date: string|null, steps_without_guide: int}
     */
    public function toArray(): array
    {
        return [
            'hours_left' => round($this->left->in('h'), 1),
            'pace' => round($this->pace->in(''), 2),
            'pace_from' => $this->paceFrom,
            'date' => $this->date,
            'steps_without_guide' => $this->unguided,
        ];
    }
}
