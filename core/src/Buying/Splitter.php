<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

/**
 * The cheapest way to spread lines over suppliers, exact, with its proof (S03): branch and bound on what each supplier
 * gets (nothing, or goods within one stretch of its terms), bounded by pricing goods at each supplier so that lines and
 * suppliers decide apart (Lagrangian relaxation of "what the lines take there is what is bought there"; Held, Wolfe and
 * Crowder, "Validation of subgradient optimization", 1974, from memory). Costs in the build's currency.
 *
 * A way is goods by supplier, in Terms::UNIT. A node is its bound; by supplier the stretches that are left and whether
 * it may get nothing; by line the ways that are left; prices; and by line how often each way was wanted.
 *
 * @phpstan-import-type Stretch from Terms
 *
 * @phpstan-type Way array<int, int>
 * @phpstan-type Wanted array<int, array<int, int>>
 * @phpstan-type Left array<int, list<int>>
 * @phpstan-type Node array{float, array<int, list<Stretch>>, array<int, bool>, Left, array<int, float>, Wanted}
 */
final class Splitter
{
    /** Costs nearer than this are the same to the cent. */
    private const SAME = 0.004;

    private readonly SplitSearch $search;

    private int $looked = 0;

    /**
     * @param  list<list<Way>>  $lines  each with the ways it can be bought; none where it cannot
     * @param  list<list<Stretch>>  $terms  by supplier
     * @param  int  $most  suppliers at the most
     * @param  float  $seconds  after which it stops with the gap that is left
     */
    public function __construct(
        private readonly array $lines,
        private readonly array $terms,
        private readonly int $most = PHP_INT_MAX,
        private readonly float $seconds = 5.0,
    ) {
        $this->search = new SplitSearch($lines, $terms, $most);
    }

    /**
     * @return array{ways: list<int>|null, cost: float, bound: float, proven: bool, nodes: int} the way of each line, or
     * null where there is none within the limits; no split costs less than the bound
     */
    public function solve(): array
    {
        $until = hrtime(true) + (int) ($this->seconds * 1e9);
        if ($this->lines === []) {
            return ['ways' => [], 'cost' => 0.0, 'bound' => 0.0, 'proven' => true, 'nodes' => 0];
        }
        foreach ($this->lines as $ways) {
            if ($ways === []) {
                return ['ways' => null, 'cost' => INF, 'bound' => INF, 'proven' => true, 'nodes' => 0];
            }
        }
        $this->search->begin();
        /** @var \SplPriorityQueue<float, Node> $queue */
        $queue = new \SplPriorityQueue;
        $root = [
            0.0,
            $this->terms,
            array_fill(0, count($this->terms), true),
            array_map(static fn (array $ways): array => array_keys($ways), $this->lines),
            $this->search->slopes,
            [],
        ];
        $bound = $this->open($root, 120, $queue);
        while (! $queue->isEmpty()) {
            /** @var Node $node */
            $node = $queue->extract();
            $bound = $node[0];
            if ($bound >= $this->search->best - self::SAME || hrtime(true) > $until) {
                break;
            }
            foreach ($this->halves($node) as $half) {
                $this->open($half, 30, $queue);
            }
            $bound = $this->search->best;
        }
        $bound = min($bound, $this->search->best);

        return [
            'ways' => $this->search->chosen,
            'cost' => $this->search->best,
            'bound' => $bound,
            'proven' => $bound >= $this->search->best - self::SAME,
            'nodes' => $this->looked,
        ];
    }

    /**
     * Bounds a node, tries what its prices suggest, and queues it where it may still hold something cheaper.
     *
     * @param  Node  $node
     * @param  \SplPriorityQueue<float, Node>  $queue
     */
    private function open(array $node, int $steps, \SplPriorityQueue $queue): float
    {
        $this->looked++;
        [$parent, $stretches, $closed, $ways, $prices] = $node;
        // Ways through a supplier that may get nothing only are gone; a line without a way ends the node.
        foreach ($ways as $i => $left) {
            foreach ($left as $at => $w) {
                foreach ($this->lines[$i][$w] as $s => $goods) {
                    if ($stretches[$s] === []) {
                        unset($left[$at]);
                    }
                }
            }
            if ($left === []) {
                return INF;
            }
            $ways[$i] = array_values($left);
        }
        [$least, $greatest] = $this->reach($ways);
        foreach ($stretches as $s => $list) {
            $kept = [];
            foreach ($list as [$from, $to, $fixed, $slope]) {
                $from = max($from, $least[$s]);
                $to = min($to, $greatest[$s]);
                if ($from <= $to) {
                    $kept[] = [$from, $to, $fixed, $slope];
                }
            }
            $stretches[$s] = $kept;
            if ($least[$s] > 0) {
                $closed[$s] = false;
            }
            if ($kept === [] && ! $closed[$s]) {
                return INF;
            }
        }
        $open = count(array_filter($closed, static fn (bool $may): bool => ! $may));
        if ($open > $this->most) {
            return INF;
        }
        $others =
            $open === $this->most
                ? array_filter(
                    $stretches,
                    static fn (array $l, int $s): bool => $closed[$s] && $l !== [],
                    ARRAY_FILTER_USE_BOTH,
                )
                : [];
        if ($others !== []) {
            // No more suppliers than are open already.
            $left = array_replace($stretches, array_map(static fn (): array => [], $others));

            return $this->open([$parent, $left, $closed, $ways, $prices, $node[5]], $steps, $queue);
        }
        $top = $parent;
        $kept = $prices;
        $scale = 1.2;
        $stale = 0;
        $wanted = [];
        for ($step = 0; $step < $steps; $step++) {
            [$bound, $picked, $taken, $given, $kinks] = $this->price($stretches, $closed, $ways, $prices);
            $this->search->weigh($picked, $taken);
            foreach ($step * 2 < $steps ? [] : $picked as $i => $w) {
                $wanted[$i][$w] = ($wanted[$i][$w] ?? 0) + 1;
            }
            if ($bound > $top + 1e-9) {
                [$top, $kept, $stale] = [$bound, $prices, 0];
            } elseif (++$stale % 4 === 0) {
                $scale *= 0.6;
                $prices = $kept;
            }
            if ($top >= $this->search->best - self::SAME) {
                return $top;
            }
            $square = 0.0;
            foreach ($taken as $s => $goods) {
                $square += (float) ($goods - $given[$s]) ** 2;
            }
            if ($square === 0.0) {
                break;
            }
            $length = ($scale * max($this->search->best - $bound, 1e-4 * abs($bound))) / $square;
            if (! is_finite($length)) {
                $length = ($scale * 0.05 * abs($bound)) / $square;
            }
            foreach ($taken as $s => $goods) {
                $next = $prices[$s] + $length * ($goods - $given[$s]);
                // Nothing is passed by at which a supplier turns.
                $prices[$s] = ($prices[$s] - $kinks[$s]) * ($next - $kinks[$s]) < 0 ? $kinks[$s] : $next;
            }
        }
        $node = $this->withoutDear([$top, $stretches, $closed, $ways, $kept, $wanted]);
        if ($node === null) {
            return INF;
        }
        [, $picked, $taken] = $this->price($node[1], $node[2], $node[3], $kept);
        $this->search->better($picked, $taken);
        $queue->insert($node, -$top);

        return $top;
    }

    /**
     * What would cost more than the cheapest split so far, whatever else is chosen, is taken out: a node's bound and
     * what one way or stretch adds to it at the node's prices bound every split that has it.
     *
     * @param  Node  $node
     * @return Node|null null where nothing is left
     */
    private function withoutDear(array $node): ?array
    {
        [, $stretches, $closed, $ways, $prices] = $node;
        [$bound] = $this->price($stretches, $closed, $ways, $prices);
        $room = $this->search->best - self::SAME - $bound;
        foreach ($ways as $i => $left) {
            if (count($left) < 2) {
                continue;
            }
            $costs = [];
            foreach ($left as $w) {
                $cost = 0.0;
                foreach ($this->lines[$i][$w] as $s => $goods) {
                    $cost += $prices[$s] * $goods;
                }
                $costs[$w] = $cost;
            }
            $least = min($costs) + $room;
            $ways[$i] = array_keys(array_filter($costs, static fn (float $cost): bool => $cost <= $least));
            if ($ways[$i] === []) {
                return null;
            }
        }
        foreach ($stretches as $s => $list) {
            $costs = [];
            foreach ($list as $k => [$from, $to, $fixed, $slope]) {
                $costs[$k] = $fixed + ($slope - $prices[$s]) * ($slope < $prices[$s] ? $to : $from);
            }
            $least = min([...$costs, $closed[$s] ? 0.0 : INF]) + $room;
            $stretches[$s] = array_values(
                array_filter($list, static fn (int $k): bool => $costs[$k] <= $least, ARRAY_FILTER_USE_KEY),
            );
            $closed[$s] = $closed[$s] && $least >= 0.0;
            if ($stretches[$s] === [] && ! $closed[$s]) {
                return null;
            }
        }

        return [$node[0], $stretches, $closed, $ways, $prices, $node[5]];
    }

    /**
     * The bound at some prices, and what lines and suppliers would do at them.
     *
     * @param  array<int, list<Stretch>>  $stretches
     * @param  array<int, bool>  $closed
     * @param  array<int, list<int>>  $ways
     * @param  array<int, float>  $prices
     * @return array{float, list<int>, array<int, int>, array<int, int>, array<int, float>} bound; way of each line;
     * goods the lines take and suppliers would give; at which price each of these would give another amount
     */
    private function price(array $stretches, array $closed, array $ways, array $prices): array
    {
        $taken = array_fill(0, count($this->terms), 0);
        $picked = [];
        $bound = 0.0;
        foreach ($ways as $i => $left) {
            $least = INF;
            $best = $left[0];
            foreach ($left as $w) {
                $cost = 0.0;
                foreach ($this->lines[$i][$w] as $s => $goods) {
                    $cost += $prices[$s] * $goods;
                }
                if ($cost < $least) {
                    $least = $cost;
                    $best = $w;
                }
            }
            $bound += $least;
            $picked[] = $best;
            foreach ($this->lines[$i][$best] as $s => $goods) {
                $taken[$s] += $goods;
            }
        }
        $given = $kinks = [];
        foreach ($stretches as $s => $list) {
            $least = $closed[$s] ? 0.0 : INF;
            $at = 0;
            $kink = NAN;
            foreach ($list as [$from, $to, $fixed, $slope]) {
                // At its own price a supplier would give anything within.
                $end = match (true) {
                    $slope === $prices[$s] => max($from, min($to, $taken[$s])),
                    $slope < $prices[$s] => $to,
                    default => $from,
                };
                $cost = $fixed + ($slope - $prices[$s]) * $end;
                if ($cost < $least) {
                    $least = $cost;
                    $at = $end;
                    $kink = $slope;
                }
            }
            $bound += $least;
            $given[$s] = $at;
            $kinks[$s] = $kink;
        }

        return [$bound, $picked, $taken, $given, $kinks];
    }

    /**
     * Two halves of a node, where lines and suppliers disagree most about what one supplier gets.
     *
     * @param  Node  $node
     * @return list<Node>
     */
    private function halves(array $node): array
    {
        [$bound, $stretches, $closed, $ways, $prices, $wanted] = $node;
        [, $picked, $taken, $given] = $this->price($stretches, $closed, $ways, $prices);
        $worst = null;
        $most = -1.0;
        foreach ($stretches as $s => $list) {
            $kinds = count($list) + ($closed[$s] && $list !== [] ? 1 : 0);
            $apart = abs($taken[$s] - $given[$s]) * max($this->search->slopes[$s], 1e-12);
            if ($kinds > 1 && $apart + ($closed[$s] ? 1e-3 : 0.0) > $most) {
                [$worst, $most] = [$s, $apart + ($closed[$s] ? 1e-3 : 0.0)];
            }
        }
        if ($worst !== null) {
            $s = $worst;
            if ($closed[$s]) {
                return [
                    [$bound, array_replace($stretches, [$s => []]), $closed, $ways, $prices, $wanted],
                    [$bound, $stretches, array_replace($closed, [$s => false]), $ways, $prices, $wanted],
                ];
            }
            $at = 1;
            foreach ($stretches[$s] as $k => [$from]) {
                $at = $k > 0 && $from <= $taken[$s] ? $k : $at;
            }

            return [
                [
                    $bound,
                    array_replace($stretches, [$s => array_slice($stretches[$s], 0, $at)]),
                    $closed,
                    $ways,
                    $prices,
                    $wanted,
                ],
                [
                    $bound,
                    array_replace($stretches, [$s => array_slice($stretches[$s], $at)]),
                    $closed,
                    $ways,
                    $prices,
                    $wanted,
                ],
            ];
        }

        return $this->byLine($node, $picked, $taken);
    }

    /**
     * Every supplier's stretch is settled and what the lines want is still not within: the line whose turning elsewhere
     * costs least, with and without what it wants now.
     *
     * @param  Node  $node
     * @param  list<int>  $picked
     * @param  array<int, int>  $taken
     * @return list<Node>
     */
    private function byLine(array $node, array $picked, array $taken): array
    {
        [$bound, $stretches, $closed, $ways, $prices, $wanted] = $node;
        $line = null;
        $most = -1.0;
        foreach ($ways as $i => $left) {
            if (count($left) < 2) {
                continue;
            }
            // Of the lines that waver, the dearest; where none does, any.
            $counts = array_intersect_key($wanted[$i] ?? [], array_flip($left));
            $waver = $counts === [] ? 0.0 : 1 - max($counts) / array_sum($counts);
            $weight = ($waver + 1e-6) * array_sum($this->lines[$i][$picked[$i]]);
            if ($weight > $most) {
                [$line, $most] = [$i, $weight];
            }
        }
        if ($line === null) {
            return [];
        }

        return [
            [$bound, $stretches, $closed, array_replace($ways, [$line => [$picked[$line]]]), $prices, $wanted],
            [
                $bound,
                $stretches,
                $closed,
                array_replace($ways, [
                    $line => array_values(array_filter($ways[$line], static fn (int $w): bool => $w !== $picked[$line])),
                ]),
                $prices,
                $wanted,
            ],
        ];
    }

    /**
     * Least and most goods each supplier can get of the ways that are left.
     *
     * @param  array<int, list<int>>  $ways
     * @return array{array<int, int>, array<int, int>}
     */
    private function reach(array $ways): array
    {
        $least = $greatest = array_fill(0, count($this->terms), 0);
        foreach ($ways as $i => $left) {
            $low = $high = $seen = [];
            foreach ($left as $w) {
                foreach ($this->lines[$i][$w] as $s => $goods) {
                    $low[$s] = min($low[$s] ?? PHP_INT_MAX, $goods);
                    $high[$s] = max($high[$s] ?? 0, $goods);
                    $seen[$s] = ($seen[$s] ?? 0) + 1;
                }
            }
            foreach ($high as $s => $goods) {
                $greatest[$s] += $goods;
                $least[$s] += $seen[$s] === count($left) ? $low[$s] : 0;
            }
        }

        return [$least, $greatest];
    }
}
