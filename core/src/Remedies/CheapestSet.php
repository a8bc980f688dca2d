<?php

declare(strict_types=1);

namespace Magpie\Core\Remedies;

use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Changes;
use Magpie\Core\Format\Reading;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Standing;

/**
 * The cheapest set of remedies that cures several findings at once: weighted set cover by branch and bound, each set
 * that would be the best so far made to the whole build and inspected. Exact over the remedies it is given, as long as
 * the search comes to its end; otherwise a set is put together one by one, and the gap to the lower bound is said.
 *
 * @phpstan-type Offer array{says: string, changes: list<array<string, mixed>>, cured: list<string>, cost: float,
 *     buys: bool}
 */
final class CheapestSet
{
    /** Sets inspected at the most; beyond that the answer is the best of those, and not proven to be the cheapest. */
    private const INSPECTED = 40;

    /** Branches looked at, at the most. */
    private const BRANCHES = 20_000;

    /** @var list<int>|null */
    private ?array $best = null;

    private float $bestCost = INF;

    private int $inspected = 0;

    private int $branches = 0;

    /** Lowest cost a set that was not looked at could have. */
    private float $floor = INF;

    /** @var list<Offer> */
    private array $offers = [];

    /** @var array<string, list<int>> finding → offers that cure it, the cheapest first */
    private array $curing = [];

    private readonly Reading $reading;

    public function __construct(private readonly Standing $standing)
    {
        $this->reading = Reading::of($standing->build());
    }

    /**
     * @param  list<string>  $keys  findings to cure
     * @param  list<Offer>  $offers
     * @return array{chosen: list<int>, cost: float|null, proven: bool, gap: float|null, inspected: int,
     *     left: list<string>, changes: list<array<string, mixed>>} left: findings no offer cures
     */
    public function of(array $keys, array $offers): array
    {
        $this->offers = $offers;
        $this->curing = array_fill_keys($keys, []);
        foreach ($offers as $i => $offer) {
            foreach (array_intersect($offer['cured'], $keys) as $key) {
                $this->curing[$key][] = $i;
            }
        }
        $left = array_map(
            strval(...),
            array_keys(array_filter($this->curing, static fn (array $by): bool => $by === [])),
        );
        $this->curing = array_filter($this->curing);
        foreach ($this->curing as &$by) {
            usort($by, fn (int $a, int $b): int => $this->price($a) <=> $this->price($b));
        }
        unset($by);
        $this->branch([], 0.0);
        $missed = $this->best === null ? $this->oneByOne() : [];
        $proven = $missed === [] && $this->best !== null && $this->floor >= $this->bestCost - 1e-9;
        $cost =
            $this->best === null
                ? null
                : array_sum(array_map(fn (int $i): float => $this->offers[$i]['cost'], $this->best));
        $gap =
            $proven || $this->best === null
                ? null
                : max(
                    0.0,
                    $this->bestCost -
                        min($this->floor, $this->bound(array_map(strval(...), array_keys($this->curing)))),
                );

        return [
            'chosen' => $this->best ?? [],
            'cost' => $cost,
            'proven' => $proven,
            'gap' => $gap,
            'inspected' => $this->inspected,
            'left' => [...$left, ...$missed],
            'changes' => $this->changes($this->best ?? []),
        ];
    }

    /**
     * @param  list<int>  $chosen
     */
    private function branch(array $chosen, float $cost): void
    {
        $open = $this->open($chosen);
        $bound = $cost + $this->bound($open);
        if ($bound >= $this->bestCost) {
            return;
        }
        if ($this->inspected >= self::INSPECTED || $this->branches++ >= self::BRANCHES) {
            $this->floor = min($this->floor, $bound);

            return;
        }
        if ($open === []) {
            $this->offer($chosen, $cost);

            return;
        }
        // The finding with the fewest ways to cure it decides next: the tree stays narrow.
        usort($open, fn (string $a, string $b): int => count($this->curing[$a]) <=> count($this->curing[$b]));
        foreach ($this->curing[$open[0]] as $i) {
            $this->branch([...$chosen, $i], $cost + $this->price($i));
        }
    }

    /**
     * @param  list<int>  $chosen
     * @return list<string> findings none of the chosen cures
     */
    private function open(array $chosen): array
    {
        return array_values(
            array_filter(
                array_map(strval(...), array_keys($this->curing)),
                fn (string $key): bool => array_intersect($this->curing[$key], $chosen) === [],
            ),
        );
    }

    /**
     * @param  list<int>  $chosen
     */
    private function offer(array $chosen, float $cost): void
    {
        $this->inspected++;
        if ($this->works($chosen, array_map(strval(...), array_keys($this->curing)))) {
            [$this->best, $this->bestCost] = [$chosen, $cost];
        }
    }

    /**
     * What curing these must at least cost: each finding pays its share of the cheapest offer that cures it.
     *
     * @param  list<string>  $open
     */
    private function bound(array $open): float
    {
        $sum = 0.0;
        foreach ($open as $key) {
            $least = INF;
            foreach ($this->curing[$key] as $i) {
                $least = min($least, $this->price($i) / count(array_intersect($this->offers[$i]['cured'], $open)));
            }
            $sum += $least;
        }

        return $sum;
    }

    /**
     * One finding after the other, each with the cheapest offer that still works with those taken before.
     *
     * @return list<string> findings that none of their offers cures together with the others
     */
    private function oneByOne(): array
    {
        $chosen = $cured = $missed = [];
        foreach (array_map(strval(...), array_keys($this->curing)) as $key) {
            if (array_intersect($this->curing[$key], $chosen) !== []) {
                $cured[] = $key;

                continue;
            }
            $taken = false;
            foreach ($this->curing[$key] as $i) {
                $this->inspected++;
                if ($this->works([...$chosen, $i], [...$cured, $key])) {
                    $chosen[] = $i;
                    $cured[] = $key;
                    $taken = true;
                    break;
                }
            }
            $taken || ($missed[] = $key);
        }
        if ($chosen !== []) {
            [$this->best, $this->bestCost] = [$chosen, array_sum(array_map($this->price(...), $chosen))];
        }

        return $missed;
    }

    /**
     * @param  list<int>  $chosen
     * @param  list<string>  $keys  findings that have to be better for it
     */
    private function works(array $chosen, array $keys): bool
    {
        $changes = $this->changes($chosen);
        try {
            $after = $this->standing->after($this->reading->changed($changes));
        } catch (CannotReadBuildFile) {
            // Two of them want the same place, or make a part of one name twice.
            return false;
        }
        $turned = RemedySearch::turned($this->standing->findings(), $after->findings(), Remedy::toBeFitted($changes));

        return $turned !== null && array_diff($keys, array_map(strval(...), array_keys($turned))) === [];
    }

    /**
     * @param  list<int>  $chosen
     * @return list<array<string, mixed>>
     */
    private function changes(array $chosen): array
    {
        return Changes::merged(array_map(fn (int $i): array => $this->offers[$i]['changes'], $chosen));
    }

    /**
     * What an offer weighs: its money, and a trifle for each thing to buy or do, so that of two equals the plainer
     * wins.
     */
    private function price(int $i): float
    {
        return max(0.0, $this->offers[$i]['cost']) + ($this->offers[$i]['buys'] ? 0.02 : 0.01);
    }
}
