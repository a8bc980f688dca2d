<?php

declare(strict_types=1);

namespace Magpie\Core\Remedies;

use InvalidArgumentException;
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
 * @phpstan-import-type Change from Changes
 *
 * @phpstan-type Offer array{says: string, changes: list<Change>, cured: list<string>, cost: float,
 *     buys: bool}
 */
final class CheapestSet
{
    /** Sets inspected at the most; beyond that the answer is the best of those, and not proven to be the cheapest. */
    private const INSPECTED = 40;

    /** Findings that can be cured at once: the bits of a number. */
    private const MOST = 62;

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

    /** @var list<string> findings that some offer cures; the bit of each is its place here */
    private array $keys = [];

    /** @var array<int, list<int>> bit of a finding → offers that cure it, the cheapest first */
    private array $curing = [];

    /** @var array<int, int> offer → findings it cures, as bits */
    private array $cures = [];

    private readonly Reading $reading;

    public function __construct(private readonly Standing $standing)
    {
        $this->reading = Reading::of($standing->build());
    }

    /**
     * @param  list<string>  $keys  findings to cure
     * @param  list<Offer>  $offers
     * @return array{chosen: list<int>, cost: float|null, proven: bool, gap: float|null, inspected: int,
     *     left: list<string>, changes: list<Change>} left: findings no offer cures
     */
    public function of(array $keys, array $offers): array
    {
        $this->offers = $offers;
        $left = $this->lay($keys);
        $cover = $this->cover();
        // What covers all at least cost, leaving aside whether it works together, costs no more than any set that does.
        if ($cover !== null && $cover !== [] && $this->works($cover, $this->keys)) {
            $this->inspected++;
            [$this->best, $this->bestCost] = [$cover, array_sum(array_map($this->price(...), $cover))];
            $missed = [];
            $proven = true;
        } else {
            $this->branch([], $this->all(), 0.0);
            $missed = $this->best === null ? $this->oneByOne() : [];
            $proven = $missed === [] && $this->best !== null && $this->floor >= $this->bestCost - 1e-9;
        }
        $cost =
            $this->best === null
                ? null
                : array_sum(array_map(fn (int $i): float => $this->offers[$i]['cost'], $this->best));
        $gap =
            $proven || $this->best === null
                ? null
                : max(0.0, $this->bestCost - min($this->floor, $this->bound($this->all())));

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
     * Numbers the findings, so that a set of them is the bits of a number.
     *
     * @param  list<string>  $keys
     * @return list<string> findings no offer cures
     */
    private function lay(array $keys): array
    {
        $curing = array_fill_keys($keys, []);
        foreach ($this->offers as $i => $offer) {
            foreach (array_intersect($offer['cured'], $keys) as $key) {
                $curing[$key][] = $i;
            }
        }
        $left = array_map(strval(...), array_keys(array_filter($curing, static fn (array $by): bool => $by === [])));
        $this->keys = array_map(strval(...), array_keys(array_filter($curing)));
        if (count($this->keys) > self::MOST) {
            throw new InvalidArgumentException('At most '.self::MOST.' findings can be cured at once.');
        }
        $this->curing = [];
        $this->cures = array_fill_keys(array_keys($this->offers), 0);
        foreach ($this->keys as $bit => $key) {
            usort($curing[$key], fn (int $a, int $b): int => $this->price($a) <=> $this->price($b));
            $this->curing[$bit] = $curing[$key];
            foreach ($curing[$key] as $i) {
                $this->cures[$i] |= 1 << $bit;
            }
        }

        return $left;
    }

    /** All findings, as bits. */
    private function all(): int
    {
        return (1 << count($this->keys)) - 1;
    }

    /**
     * The offers that cover all findings at least cost, whether they work together or not. Findings that share no offer
     * are covered apart from each other.
     *
     * @return list<int>|null null when the search did not come to its end
     */
    private function cover(): ?array
    {
        $chosen = [];
        for ($open = $this->all(); $open !== 0; $open &= ~$group) {
            $group = $open & -$open;
            do {
                $before = $group;
                foreach ($this->cures as $cures) {
                    $group |= ($cures & $group) !== 0 ? $cures : 0;
                }
            } while ($group !== $before);
            $best = $this->coverOf($group);
            if ($best === null) {
                return null;
            }
            array_push($chosen, ...$best);
        }

        return $chosen;
    }

    /**
     * @return list<int>|null
     */
    private function coverOf(int $group): ?array
    {
        $best = null;
        $least = INF;
        $branches = 0;
        $search = function (array $chosen, int $open, float $cost) use (&$search, &$best, &$least, &$branches): bool {
            if ($open === 0) {
                [$best, $least] = [$chosen, $cost];

                return true;
            }
            if ($branches++ >= self::BRANCHES) {
                return false;
            }
            foreach ($this->curing[$this->narrowest($open)] as $i) {
                $then = $cost + $this->price($i);
                $rest = $open & ~$this->cures[$i];
                if ($then + $this->bound($rest) < $least - 1e-12 && ! $search([...$chosen, $i], $rest, $then)) {
                    return false;
                }
            }

            return true;
        };

        /** @var list<int>|null $best */
        return $search([], $group, 0.0) ? $best : null;
    }

    /** The open finding with the fewest ways to cure it: it decides next, so that the tree stays narrow. */
    private function narrowest(int $open): int
    {
        $found = 0;
        $least = PHP_INT_MAX;
        foreach ($this->curing as $bit => $by) {
            if (($open & (1 << $bit)) !== 0 && count($by) < $least) {
                [$found, $least] = [$bit, count($by)];
            }
        }

        return $found;
    }

    /**
     * @param  list<int>  $chosen
     * @param  int  $open  findings none of them cures
     */
    private function branch(array $chosen, int $open, float $cost): void
    {
        $bound = $cost + $this->bound($open);
        if ($bound >= $this->bestCost) {
            return;
        }
        if ($this->inspected >= self::INSPECTED || $this->branches++ >= self::BRANCHES) {
            $this->floor = min($this->floor, $bound);

            return;
        }
        if ($open === 0) {
            $this->inspected++;
            if ($this->works($chosen, $this->keys)) {
                [$this->best, $this->bestCost] = [$chosen, $cost];
            }

            return;
        }
        foreach ($this->curing[$this->narrowest($open)] as $i) {
            $this->branch([...$chosen, $i], $open & ~$this->cures[$i], $cost + $this->price($i));
        }
    }

    /** What curing these must at least cost: each finding pays its share of the cheapest offer that cures it. */
    private function bound(int $open): float
    {
        $sum = 0.0;
        $share = [];
        foreach ($this->curing as $bit => $by) {
            if (($open & (1 << $bit)) === 0) {
                continue;
            }
            $least = INF;
            foreach ($by as $i) {
                $least = min($least, $share[$i] ??= $this->price($i) / self::count($this->cures[$i] & $open));
            }
            $sum += $least;
        }

        return $sum;
    }

    private static function count(int $bits): int
    {
        $count = 0;
        for (; $bits !== 0; $count++) {
            $bits &= $bits - 1;
        }

        return $count;
    }

    /**
     * One finding after the other, each with the cheapest offer that still works with those taken before.
     *
     * @return list<string> findings that none of their offers cures together with the others
     */
    private function oneByOne(): array
    {
        $chosen = $cured = $missed = [];
        foreach ($this->keys as $bit => $key) {
            if (array_intersect($this->curing[$bit], $chosen) !== []) {
                $cured[] = $key;

                continue;
            }
            $taken = false;
            foreach ($this->curing[$bit] as $i) {
                $this->inspected++;
                if ($this->works([...$chosen, $i], [...$cured, $key])) {
                    $chosen[] = $i;
                    $cured[] = $key;
                    $taken = true;
                    break;
                }
            }
            if (! $taken) {
                $missed[] = $key;
            }
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
     * @return list<Change>
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
