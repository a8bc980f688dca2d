<?php

declare(strict_types=1);

namespace Magpie\Core\Remedies;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Inspector;

/**
 * The cheapest set of remedies that cures several findings at once: weighted set cover by branch and bound, each set
 * that would be the best so far made to the whole build and inspected. Exact over the remedies it is given.
 *
 * @phpstan-type Offer array{says: string, changes: list<array<string, mixed>>, cured: list<string>, cost: float, buys: bool}
 */
final class CheapestSet
{
    /** Sets inspected at the most; beyond that the answer is the best of those, and not proven to be the cheapest. */
    private const INSPECTED = 40;

    /** @var list<int>|null */
    private ?array $best = null;

    private float $bestCost = INF;

    private int $inspected = 0;

    /** Cost below which every set was looked at. */
    private float $floor = INF;

    /** @var list<Offer> */
    private array $offers = [];

    /** @var array<string, list<int>> finding → offers that cure it, the cheapest first */
    private array $curing = [];

    public function __construct(private readonly Inspector $inspector, private readonly Inspection $inspection)
    {
    }

    /**
     * @param  list<string>  $keys  findings to cure
     * @param  list<Offer>  $offers
     * @return array{chosen: list<int>, cost: float|null, proven: bool, gap: float|null, inspected: int, left: list<string>, changes: list<array<string, mixed>>} left: findings no offer cures
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
        $left = array_map(strval(...), array_keys(array_filter($this->curing, static fn (array $by): bool => $by === [])));
        $this->curing = array_filter($this->curing);
        foreach ($this->curing as &$by) {
            usort($by, fn (int $a, int $b): int => $this->price($a) <=> $this->price($b));
        }
        unset($by);
        $this->branch([], 0.0);
        $proven = $this->best !== null && $this->floor >= $this->bestCost;
        $cost = $this->best === null ? null : array_sum(array_map(fn (int $i): float => $this->offers[$i]['cost'], $this->best));

        return ['chosen' => $this->best ?? [], 'cost' => $cost, 'proven' => $proven, 'gap' => $proven || $this->best === null ? null : $this->bestCost - $this->floor, 'inspected' => $this->inspected, 'left' => $left, 'changes' => $this->changes($this->best ?? [])];
    }

    /**
     * @param  list<int>  $chosen
     */
    private function branch(array $chosen, float $cost): void
    {
        if ($cost >= $this->bestCost) {
            return;
        }
        $open = $this->open($chosen);
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
        return array_values(array_filter(array_map(strval(...), array_keys($this->curing)), fn (string $key): bool => array_intersect($this->curing[$key], $chosen) === []));
    }

    /**
     * @param  list<int>  $chosen
     */
    private function offer(array $chosen, float $cost): void
    {
        if ($this->inspected >= self::INSPECTED) {
            $this->floor = min($this->floor, $cost);

            return;
        }
        $this->inspected++;
        if ($this->works($chosen)) {
            [$this->best, $this->bestCost] = [$chosen, $cost];
        }
    }

    /**
     * @param  list<int>  $chosen
     */
    private function works(array $chosen): bool
    {
        $now = [];
        foreach ($this->inspection->findings as $finding) {
            $now[$finding->key()] = $finding;
        }
        try {
            $after = $this->inspector->inspect(Changed::build(BuildFile::data($this->inspection->bench->build), $this->changes($chosen)));
        } catch (CannotReadBuildFile) {
            // Two of them want the same place, or make a part of one name twice.
            return false;
        }
        $turned = RemedySearch::turned($now, $after->findings);

        return $turned !== null && array_diff(array_map(strval(...), array_keys($this->curing)), array_keys($turned)) === [];
    }

    /**
     * @param  list<int>  $chosen
     * @return list<array<string, mixed>>
     */
    private function changes(array $chosen): array
    {
        return Changed::merged(array_map(fn (int $i): array => $this->offers[$i]['changes'], $chosen));
    }

    /** What an offer weighs: its money, and a trifle for each thing to buy or do, so that of two equals the plainer wins. */
    private function price(int $i): float
    {
        return max(0.0, $this->offers[$i]['cost']) + ($this->offers[$i]['buys'] ? 0.02 : 0.01);
    }
}
