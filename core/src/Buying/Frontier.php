<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Build;
use Magpie\Core\Quantity\Money;

/**
 * What else could be done with an order: what each day earlier costs, down to the fastest, and the cheapest with one
 * supplier less. Each point is a split of its own, with its own proof.
 */
final readonly class Frontier
{
    /** Points at the most. */
    private const MOST = 12;

    public function __construct(private Build $build, private SplitLimits $limits = new SplitLimits(seconds: 1.5))
    {
    }

    /**
     * @return array{points: list<array{days: int|null, landed: string, suppliers: int, proven: bool}>, fewer: array{
     *     landed: string, suppliers: int, days: int|null, more: string, proven: bool}|null}
     */
    public function toArray(): array
    {
        $best = new Split($this->build, $this->limits);
        $points = [];
        $complete = count($best->open);
        $split = $best;
        while (
            count($points) < self::MOST &&
            $split->solved() &&
            $split->bought !== [] &&
            count($split->open) <= $complete
        ) {
            $points[] = self::point($split);
            $days = $split->days();
            $next = $days === null ? $this->longest() : $days - 1;
            if ($next < 0 || $days === 0) {
                break;
            }
            $split = new Split($this->build, $this->limits->within($next));
        }
        $used = count($best->baskets);
        $fewer = $used > 1 ? new Split($this->build, $this->limits->from($used - 1)) : null;

        return [
            'points' => $points,
            'fewer' => $fewer === null || ! $fewer->solved()
                    ? null
                    : ['more' => $fewer->landed()->minus($best->landed())->amount()] + self::point($fewer),
        ];
    }

    /**
     * The split that is here soonest of those that cost no more; null where even the cheapest does. What can be had is
     * never left out to be sooner.
     */
    public function soonestWithin(Money $ceiling): ?Split
    {
        $free = new Split($this->build, $this->limits);
        if (! $free->solved() || $free->landed()->compare($ceiling) > 0) {
            return null;
        }
        $best = $free;
        // Fewer days never cost less, so half of them are out with every try.
        [$low, $high] = [0, ($free->days() ?? $this->longest() + 1) - 1];
        while ($low <= $high) {
            $days = intdiv($low + $high, 2);
            $try = new Split($this->build, $this->limits->within($days));
            if ($try->solved() && count($try->open) <= count($free->open) && $try->landed()->compare($ceiling) <= 0) {
                $best = $try;
                $high = ($try->days() ?? $days) - 1;
            } else {
                $low = $days + 1;
            }
        }

        return $best;
    }

    /** The longest time any supplier or offer names. */
    private function longest(): int
    {
        $days = [0];
        foreach ($this->build->offers as $offer) {
            $days[] = $offer->leadDays ?? ($this->build->suppliers[$offer->supplier]->leadDays ?? 0);
        }

        return max($days);
    }

    /**
     * @return array{days: int|null, landed: string, suppliers: int, proven: bool}
     */
    private static function point(Split $split): array
    {
        return [
            'days' => $split->days(),
            'landed' => $split->landed()->amount(),
            'suppliers' => count($split->baskets),
            'proven' => $split->proven(),
        ];
    }
}
