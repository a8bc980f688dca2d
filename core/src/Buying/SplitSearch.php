<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

/**
 * The cheapest split found so far, and how a split is bettered: lines are moved, suppliers emptied, or filled up to
 * where their terms get better.
 *
 * @phpstan-import-type Stretch from Terms
 * @phpstan-import-type Way from Splitter
 */
final class SplitSearch
{
    public float $best = INF;

    /** @var list<int>|null way of each line */
    public ?array $chosen = null;

    /** @var list<float> what goods cost at each supplier, up to its first threshold */
    public readonly array $slopes;

    /** @var array<string, true> splits that were bettered already */
    private array $tried = [];

    /**
     * @param  list<list<Way>>  $lines
     * @param  list<list<Stretch>>  $terms  by supplier
     */
    public function __construct(
        private readonly array $lines,
        private readonly array $terms,
        private readonly int $most,
    ) {
        $this->slopes = array_map(static fn (array $s): float => $s === [] ? 0.0 : $s[0][3], $terms);
    }

    /**
     * What a split costs, kept where it is the cheapest so far.
     *
     * @param  list<int>  $picked
     * @param  array<int, int>  $taken
     */
    public function weigh(array $picked, array $taken): void
    {
        $cost = $this->cost($taken);
        if ($cost >= $this->best - 1e-9) {
            return;
        }
        [$this->best, $this->chosen] = [$cost, $picked];
        $this->better($picked, $taken);
    }

    /**
     * @param  array<int, int>  $taken
     */
    private function cost(array $taken): float
    {
        $cost = 0.0;
        $open = 0;
        foreach ($taken as $s => $goods) {
            if ($goods > 0) {
                $open++;
                $cost += $this->at($s, $goods);
            }
        }

        return $open > $this->most ? INF : $cost;
    }

    private function at(int $s, int $goods): float
    {
        if ($goods === 0) {
            return 0.0;
        }
        foreach ($this->terms[$s] as [$from, $to, $fixed, $slope]) {
            if ($goods >= $from && $goods <= $to) {
                return $fixed + $slope * $goods;
            }
        }

        return INF;
    }

    /**
     * Lines are moved one by one, suppliers emptied, and filled up to where their terms get better, as long as that is
     * cheaper.
     *
     * @param  list<int>  $picked
     * @param  array<int, int>  $taken
     */
    public function better(array $picked, array $taken): void
    {
        $seen = implode(' ', $picked);
        if (isset($this->tried[$seen])) {
            return;
        }
        $this->tried[$seen] = true;
        $now = $this->cost($taken);
        do {
            $before = $now;
            foreach ($this->lines as $i => $ways) {
                foreach ($ways as $w => $way) {
                    if ($w === $picked[$i]) {
                        continue;
                    }
                    $other = $taken;
                    foreach ($ways[$picked[$i]] as $s => $goods) {
                        $other[$s] -= $goods;
                    }
                    foreach ($way as $s => $goods) {
                        $other[$s] += $goods;
                    }
                    $cost = $this->cost($other);
                    if ($cost < $now - 1e-9) {
                        [$picked, $taken, $now] = [array_values(array_replace($picked, [$i => $w])), $other, $cost];
                    }
                }
            }
            foreach (array_keys($taken) as $s) {
                foreach (
                    [$taken[$s] > 0 ? $this->without($s, $picked, $taken) : null, $this->filled($s, $picked, $taken)] as $other
                ) {
                    $cost = $other === null ? INF : $this->cost($other[1]);
                    if ($other !== null && $cost < $now - 1e-9) {
                        [$picked, $taken, $now] = [...$other, $cost];
                    }
                }
            }
        } while ($now < $before - 1e-9);
        if ($now < $this->best - 1e-9) {
            [$this->best, $this->chosen] = [$now, array_values($picked)];
        }
    }

    /**
     * A supplier is given what costs least more there, until the next stretch of its terms is reached.
     *
     * @param  list<int>  $picked
     * @param  array<int, int>  $taken
     * @return array{list<int>, array<int, int>}|null null where nothing better lies above
     */
    private function filled(int $supplier, array $picked, array $taken): ?array
    {
        $goal = null;
        foreach ($this->terms[$supplier] as [$from]) {
            if ($from > $taken[$supplier]) {
                $goal = $from;
                break;
            }
        }
        if ($goal === null) {
            return null;
        }
        $dear = [];
        foreach ($this->lines as $i => $ways) {
            foreach ($ways as $w => $way) {
                if (isset($way[$supplier]) && ! isset($ways[$picked[$i]][$supplier])) {
                    $more = 0.0;
                    foreach ($way as $s => $goods) {
                        $more += $this->slopes[$s] * $goods;
                    }
                    foreach ($ways[$picked[$i]] as $s => $goods) {
                        $more -= $this->slopes[$s] * $goods;
                    }
                    $dear["{$i} {$w}"] = $more / $way[$supplier];
                }
            }
        }
        asort($dear);
        foreach (array_keys($dear) as $key) {
            [$i, $w] = array_map(intval(...), explode(' ', (string) $key));
            if (isset($this->lines[$i][$picked[$i]][$supplier])) {
                continue;
            }
            foreach ($this->lines[$i][$picked[$i]] as $s => $goods) {
                $taken[$s] -= $goods;
            }
            foreach ($this->lines[$i][$w] as $s => $goods) {
                $taken[$s] += $goods;
            }
            $picked[$i] = $w;
            if ($taken[$supplier] >= $goal) {
                return [array_values($picked), $taken];
            }
        }

        return null;
    }

    /**
     * @param  list<int>  $picked
     * @param  array<int, int>  $taken
     * @return array{list<int>, array<int, int>}|null null where some line comes from there only
     */
    private function without(int $supplier, array $picked, array $taken): ?array
    {
        foreach ($this->lines as $i => $ways) {
            if (! isset($ways[$picked[$i]][$supplier])) {
                continue;
            }
            $best = null;
            $least = INF;
            foreach ($ways as $w => $way) {
                $cost = 0.0;
                foreach ($way as $s => $goods) {
                    // Where something is bought anyway, it costs its price only.
                    $cost += $taken[$s] > 0 ? $this->slopes[$s] * $goods : $this->at($s, $goods);
                }
                if (! isset($way[$supplier]) && $cost < $least) {
                    [$best, $least] = [$w, $cost];
                }
            }
            if ($best === null) {
                return null;
            }
            foreach ($ways[$picked[$i]] as $s => $goods) {
                $taken[$s] -= $goods;
            }
            foreach ($ways[$best] as $s => $goods) {
                $taken[$s] += $goods;
            }
            $picked[$i] = $best;
        }

        return [array_values($picked), $taken];
    }

    /** First splits: each line where it is cheapest by itself, and all from one or two suppliers. */
    public function begin(): void
    {
        $suppliers = array_keys($this->terms);
        $sets = [$suppliers];
        foreach ($suppliers as $s) {
            $sets[] = [$s];
            foreach ($suppliers as $t) {
                if ($s < $t) {
                    $sets[] = [$s, $t];
                }
            }
        }
        foreach ($sets as $set) {
            $among = array_flip($set);
            $picked = [];
            $taken = array_fill(0, count($this->terms), 0);
            foreach ($this->lines as $ways) {
                $best = null;
                $least = INF;
                foreach ($ways as $w => $way) {
                    $cost = 0.0;
                    foreach ($way as $s => $goods) {
                        $cost += isset($among[$s]) ? $this->slopes[$s] * $goods : INF;
                    }
                    if ($cost < $least) {
                        [$best, $least] = [$w, $cost];
                    }
                }
                if ($best === null) {
                    continue 2;
                }
                $picked[] = $best;
                foreach ($ways[$best] as $s => $goods) {
                    $taken[$s] += $goods;
                }
            }
            $this->weigh($picked, $taken);
        }
    }
}
