<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Buying\Supplier;
use Magpie\Core\Money\Basket;
use Magpie\Core\Money\Exchange;
use Magpie\Core\Money\OrderLine;
use Magpie\Core\Money\ToOrder;
use Magpie\Core\Quantity\Money;

/**
 * Where to buy what is still to be ordered so that it costs least at the door (S03), with the proof, within limits: a
 * latest arrival, a number of suppliers, suppliers left out, offers that are settled. Of each part all comes from one
 * supplier, unless none has enough.
 *
 * @phpstan-type Lots array<string, list<Lot>>
 */
final class Split
{
    /** @var array<string, Terms> by supplier */
    private array $terms = [];

    private readonly Exchange $exchange;

    /** @var list<OrderLine> still to be ordered */
    public readonly array $lines;

    /** @var array<string, list<Offer>> by part */
    private array $offers = [];

    /** @var list<array{part: string, name: string, pieces: int, why: string}> what is not to be had within the limits */
    public readonly array $open;

    /** @var array<string, Lots> what is bought where, by part */
    public readonly array $bought;

    /** @var array{ways: list<int>|null, cost: float, bound: float, proven: bool, nodes: int} */
    private readonly array $found;

    /** @var array<string, list<Lots>> how each part that can be bought may be, by part */
    private array $ways = [];

    /** @var array<string, Basket> by supplier */
    public readonly array $baskets;

    public function __construct(private readonly Build $build, public readonly SplitLimits $limits = new SplitLimits)
    {
        $this->exchange = new Exchange($build->rates, $build->plan->currency);
        foreach ($build->suppliers as $supplier) {
            $terms = Terms::of($supplier, $this->exchange);
            if ($terms !== null) {
                $this->terms[$supplier->ref] = $terms;
            }
        }
        foreach ($build->offers as $offer) {
            $this->offers[$offer->part][] = $offer;
        }
        $this->lines = array_values(
            array_filter(ToOrder::of($build), static fn (OrderLine $l): bool => $l->order() > 0),
        );
        $at = array_flip(array_keys($this->terms));
        $open = [];
        foreach ($this->lines as $line) {
            $held = Ways::of($this->usable($line->part), $line->order());
            if ($held === []) {
                $open[] = [
                    'part' => $line->part,
                    'name' => $line->name,
                    'pieces' => $line->order(),
                    'why' => $this->whyNot($line),
                ];
            } else {
                $this->ways[$line->part] = $held;
            }
        }
        $this->found = (new Splitter(
            array_map(
                static fn (array $all): array => array_map(static function (array $way) use ($at): array {
                    $goods = [];
                    foreach ($way as $supplier => $lots) {
                        // Free goods still make an order.
                        $goods[$at[$supplier]] = max(1, self::goods($lots));
                    }

                    return $goods;
                }, $all),
                array_values($this->ways),
            ),
            array_values(array_map(static fn (Terms $t): array => $t->stretches, $this->terms)),
            $this->limits->most ?? PHP_INT_MAX,
            $this->limits->seconds,
        ))->solve();
        $bought = [];
        $parts = array_keys($this->ways);
        foreach ($this->found['ways'] ?? [] as $i => $w) {
            $bought[$parts[$i]] = $this->ways[$parts[$i]][$w];
        }
        $this->open = $open;
        $this->bought = $bought;
        $this->baskets = $this->baskets();
    }

    /** Whether every line that any supplier has is bought within the limits. */
    public function solved(): bool
    {
        return $this->found['ways'] !== null;
    }

    public function proven(): bool
    {
        return $this->found['proven'];
    }

    /** What it costs at the door, in the build's currency. */
    public function landed(): Money
    {
        return array_reduce(
            $this->baskets,
            fn (Money $sum, Basket $b): Money => $sum->plus(
                $this->exchange->convert($b->total) ?? Money::zero($sum->currency),
            ),
            Money::zero($this->build->plan->currency),
        );
    }

    /** What no split within the limits costs less than: with a proof, what this one costs. */
    public function bound(): ?string
    {
        return match (true) {
            ! $this->solved() => null,
            $this->proven() => $this->landed()->amount(),
            default => sprintf('%.2f', $this->found['bound']),
        };
    }

    /** Days until the last of it is here; null where one supplier does not say. */
    public function days(): ?int
    {
        $last = 0;
        foreach ($this->bought as $way) {
            foreach ($way as $lots) {
                foreach ($lots as $lot) {
                    $days = $this->daysOf($lot->offer);
                    if ($days === null) {
                        return null;
                    }
                    $last = max($last, $days);
                }
            }
        }

        return $last;
    }

    /**
     * @return array<string, Basket> by supplier
     */
    private function baskets(): array
    {
        $goods = [];
        foreach ($this->bought as $way) {
            foreach ($way as $supplier => $lots) {
                foreach ($lots as $lot) {
                    $goods[$supplier] = isset($goods[$supplier]) ? $goods[$supplier]->plus($lot->cost()) : $lot->cost();
                }
            }
        }
        ksort($goods);

        $baskets = [];
        foreach ($goods as $supplier => $sum) {
            $baskets[$supplier] = new Basket($this->build->suppliers[$supplier], $sum);
        }

        return $baskets;
    }

    /**
     * The split and its proof; amounts as decimal texts in the build's currency unless a `currency` stands beside them.
     *
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        $landed = $this->landed();

        return [
            'currency' => $this->build->plan->currency,
            'solved' => $this->solved(),
            'proven' => $this->found['proven'],
            'bound' => $this->bound(),
            'landed' => $landed->amount(),
            'days' => $this->days(),
            'baskets' => array_map(
                fn (string $ref, Basket $b): array => $this->basket($ref, $b),
                array_map(strval(...), array_keys($this->baskets)),
                array_values($this->baskets),
            ),
            'lines' => array_values(array_filter(array_map(fn (OrderLine $l): ?array => $this->line($l), $this->lines))),
            'open' => $this->open,
            'unsaid' => array_values(
                array_map(
                    static fn (Terms $t): string => $t->supplier->name,
                    array_filter(
                        array_intersect_key($this->terms, $this->baskets),
                        static fn (Terms $t): bool => $t->unsaid,
                    ),
                ),
            ),
        ];
    }

    /**
     * What was asked of it that cannot be had together, the fewest that conflict; none where nothing does.
     *
     * @return list<string>
     */
    public function conflict(): array
    {
        $asked = [];
        if ($this->limits->days !== null) {
            $asked["all here within {$this->limits->days} days"] = static fn (SplitLimits $l): SplitLimits => $l->within(
                null,
            );
        }
        if ($this->limits->most !== null) {
            $asked["no more than {$this->limits->most} suppliers"] = static fn (SplitLimits $l): SplitLimits => $l->from(
                null,
            );
        }
        foreach ($this->limits->without as $ref) {
            $name = isset($this->build->suppliers[$ref]) ? $this->build->suppliers[$ref]->name : $ref;
            $asked["nothing from {$name}"] = static fn (SplitLimits $l): SplitLimits => $l->leaving(
                array_values(array_diff($l->without, [$ref])),
            );
        }
        if ($asked === [] || ($this->solved() && $this->open === [])) {
            return [];
        }
        $free = array_reduce(
            $asked,
            static fn (SplitLimits $l, callable $lift): SplitLimits => $lift($l),
            $this->limits,
        );
        $least = count((new self($this->build, $free))->open);
        // Those that are left when any one that is not needed for the conflict has been lifted.
        $kept = array_keys($asked);
        $limits = $this->limits;
        foreach ($asked as $name => $lift) {
            $other = $lift($limits);
            $split = new self($this->build, $other);
            if (! $split->solved() || count($split->open) > $least) {
                $limits = $other;
                $kept = array_values(array_diff($kept, [$name]));
            }
        }

        return count($kept) === count($asked) && $this->solved() && count($this->open) <= $least ? [] : $kept;
    }

    /**
     * @return list<Offer> of a part, that may be bought within the limits
     */
    private function usable(string $part): array
    {
        $offers = array_filter(
            $this->offers[$part] ?? [],
            fn (Offer $o): bool => isset($this->terms[$o->supplier]) && $this->inTime($o) && $this->allowed($o),
        );
        $pinned = array_filter($this->offers[$part] ?? [], static fn (Offer $o): bool => $o->pinned);

        return array_values($pinned === [] ? $offers : array_intersect_key($offers, $pinned));
    }

    private function allowed(Offer $offer): bool
    {
        return ! in_array($offer->supplier, $this->limits->without, true) &&
            ($offer->pinned || ! $this->build->suppliers[$offer->supplier]->avoid);
    }

    private function inTime(Offer $offer): bool
    {
        $days = $this->daysOf($offer);

        return $this->limits->days === null || ($days !== null && $days <= $this->limits->days);
    }

    private function daysOf(Offer $offer): ?int
    {
        return $offer->leadDays ?? $this->build->suppliers[$offer->supplier]->leadDays;
    }

    private function whyNot(OrderLine $line): string
    {
        $offers = $this->offers[$line->part] ?? [];
        $left = array_values(array_filter($offers, fn (Offer $o): bool => isset($this->terms[$o->supplier])));
        $allowed = array_values(array_filter($left, fn (Offer $o): bool => $this->allowed($o)));
        $inTime = array_values(array_filter($allowed, fn (Offer $o): bool => $this->inTime($o)));

        return match (true) {
            $offers === [] => 'it has no price',
            $left === [] => "it is priced in {$offers[0]->price->currency}, and no rate to {$this->build->plan->currency} is given",
            $allowed === [] => 'only suppliers sell it that are left out',
            $inTime === [] => 'no supplier says that it arrives in time',
            $this->usable($line->part) === [] => 'the offer that is settled is left out or too late',
            default => "{$line->order()} are wanted, and there are fewer in stock",
        };
    }

    /**
     * @param  list<Lot>  $lots
     */
    private static function goods(array $lots): int
    {
        return array_sum(array_map(static fn (Lot $l): int => Terms::units($l->cost()), $lots));
    }

    /**
     * @return array<string, mixed>
     */
    private function basket(string $ref, Basket $basket): array
    {
        $supplier = $basket->supplier;

        return [
            'supplier' => $ref,
            'name' => $supplier->name,
            'currency' => $supplier->currency,
            'goods' => $basket->goods->amount(),
            'shipping' => $basket->shipping?->amount(),
            'duty' => $basket->duty->amount(),
            'tax' => $basket->tax->amount(),
            'fee' => $basket->fee->amount(),
            'total' => $basket->total->amount(),
            'landed' => $this->exchange->convert($basket->total)?->amount(),
            'rate_date' => $supplier->currency === $this->build->plan->currency
                    ? null
                    : $this->exchange->rateFor($supplier->currency)?->date,
            'lines' => count(array_filter($this->bought, static fn (array $way): bool => isset($way[$ref]))),
            'next_step' => self::nextStep($supplier, $basket),
            'order' => $this->orderLines($ref, $basket),
        ];
    }

    /**
     * A basket as lines of an order: what each costs with its share of what bringing it costs, to the cent and together
     * exactly the whole.
     *
     * @return list<array{part: string, pieces: int, article: string|null, agreed: string}>
     */
    private function orderLines(string $ref, Basket $basket): array
    {
        $lines = [];
        foreach ($this->bought as $part => $way) {
            foreach ($way[$ref] ?? [] as $lot) {
                $lines[] = ['part' => (string) $part, 'lot' => $lot, 'cost' => $lot->cost()];
            }
        }
        $done = $left = Money::zero($basket->total->currency);
        $shares = [];
        foreach ($lines as $line) {
            // What is due up to here, rounded, less what was given out: nothing is lost to rounding.
            $left = $left->plus($line['cost']);
            $due = $basket->goods->isZero()
                ? $left
                : Money::of($basket->total->times($left->shareOf($basket->goods))->amount(), $left->currency);
            $shares[] = [
                'part' => $line['part'],
                'pieces' => $line['lot']->pieces(),
                'article' => $line['lot']->offer->article,
                'agreed' => $due->minus($done)->amount(),
            ];
            $done = $due;
        }

        return $shares;
    }

    /**
     * What is missing until shipping costs less.
     *
     * @return array{more: string, shipping: string}|null
     */
    private static function nextStep(Supplier $supplier, Basket $basket): ?array
    {
        foreach ($supplier->shipping as $step) {
            if (
                $step->from->compare($basket->goods) > 0 &&
                $basket->shipping !== null &&
                $step->cost->compare($basket->shipping) < 0
            ) {
                return ['more' => $step->from->minus($basket->goods)->amount(), 'shipping' => $step->cost->amount()];
            }
        }

        return null;
    }

    /**
     * @return array<string, mixed>|null null where it is bought nowhere
     */
    private function line(OrderLine $line): ?array
    {
        $way = $this->bought[$line->part] ?? null;
        if ($way === null) {
            return null;
        }
        $lots = [];
        $cost = Money::zero($this->build->plan->currency);
        foreach ($way as $held) {
            foreach ($held as $lot) {
                $own = $this->exchange->convert($lot->cost()) ?? $cost;
                $cost = $cost->plus($own);
                $lots[] = [
                    'offer' => $lot->offer->ref,
                    'supplier' => $lot->offer->supplier,
                    'article' => $lot->offer->article,
                    'packs' => $lot->packs,
                    'pack' => $lot->offer->pack,
                    'price' => $lot->offer->priceFor($lot->packs)->exactAmount(),
                    'currency' => $lot->offer->price->currency,
                    'cost' => $own->amount(),
                    'pinned' => $lot->offer->pinned,
                ];
            }
        }
        $elsewhere = $this->elsewhere($line->part, $way, $cost);

        return [
            'part' => $line->part,
            'name' => $line->name,
            'pieces' => $line->order(),
            'left_over' => array_sum(array_map(static fn (array $l): int => $l['packs'] * $l['pack'], $lots)) - $line->order(),
            'lots' => $lots,
            'cost' => $cost->amount(),
            'elsewhere' => $elsewhere,
            'why' => $this->why($way, $elsewhere),
        ];
    }

    /**
     * What the goods alone would cost more, or less, elsewhere.
     *
     * @param  Lots  $way
     * @return list<array{supplier: string, name: string, more: string}> cheapest first
     */
    private function elsewhere(string $part, array $way, Money $cost): array
    {
        $others = [];
        foreach ($this->ways[$part] ?? [] as $other) {
            $supplier = (string) array_key_first($other);
            if (count($other) > 1 || isset($way[$supplier])) {
                continue;
            }
            $sum = array_reduce(
                $other[$supplier],
                fn (Money $m, Lot $l): Money => $m->plus($this->exchange->convert($l->cost()) ?? $m),
                Money::zero($cost->currency),
            );
            $others[] = [$sum, $supplier];
        }
        usort($others, static fn (array $a, array $b): int => $a[0]->compare($b[0]));

        return array_map(
            fn (array $o): array => [
                'supplier' => $o[1],
                'name' => $this->build->suppliers[$o[1]]->name,
                'more' => $o[0]->minus($cost)->amount(),
            ],
            $others,
        );
    }

    /**
     * @param  Lots  $way
     * @param  list<array{supplier: string, name: string, more: string}>  $elsewhere
     */
    private function why(array $way, array $elsewhere): string
    {
        $pinned = array_filter($way, static fn (array $lots): bool => $lots !== [] && $lots[0]->offer->pinned) !== [];
        if ($pinned) {
            return 'settled here';
        }
        if (count($way) > 1) {
            return 'no supplier has enough alone';
        }
        if ($elsewhere === []) {
            return 'sold nowhere else within the limits';
        }
        $next = $elsewhere[0];
        if (! str_starts_with($next['more'], '-')) {
            return "{$next['name']} asks {$next['more']} more";
        }
        $saved = substr($next['more'], 1);
        $taken = $this->taken($way, $next['supplier']);

        return "{$saved} less at {$next['name']}, but ".
            ($taken === [] ? 'not with the rest of what is bought, within the limits' : implode(' and ', $taken));
    }

    /**
     * What moving a line to another supplier would add at the door, by what asks it: from the two baskets as they are and as they would
     * be.
     *
     * @param  Lots  $way
     * @return list<string> the most first; none where it would cost no more
     */
    private function taken(array $way, string $to): array
    {
        $from = (string) array_key_first($way);
        $lots = array_values($way)[0] ?? [];
        $part = $lots === [] ? '' : $lots[0]->offer->part;
        $there = [];
        foreach ($this->ways[$part] ?? [] as $other) {
            if (array_keys($other) === [$to]) {
                $there = $other[$to];
            }
        }
        $sum = static fn (array $lots, Money $zero): Money => array_reduce(
            $lots,
            static fn (Money $m, Lot $l): Money => $m->plus($l->cost()),
            $zero,
        );
        $held = $this->baskets[$from]->goods;
        $left = $held->minus($sum($lots, Money::zero($held->currency)));
        $others = $this->baskets[$to]->goods ?? Money::zero($this->build->suppliers[$to]->currency);
        $after = [
            ...$left->isZero() ? [] : [new Basket($this->build->suppliers[$from], $left)],
            new Basket($this->build->suppliers[$to], $others->plus($sum($there, Money::zero($others->currency)))),
        ];
        $before = array_filter([$this->baskets[$from] ?? null, $this->baskets[$to] ?? null]);
        $more = [];
        foreach (['shipping', 'duty', 'tax', 'fee'] as $what) {
            $asked = fn (array $baskets): Money => array_reduce(
                $baskets,
                fn (Money $m, Basket $b): Money => $m->plus(
                    $b->{$what} === null ? $m->minus($m) : $this->exchange->convert($b->{$what}) ?? $m->minus($m),
                ),
                Money::zero($this->exchange->currency),
            );
            $more[$what] = $asked($after)->minus($asked($before));
        }
        $more = array_filter($more, static fn (Money $m): bool => $m->cents()->compare(Money::zero($m->currency)) > 0);
        uasort($more, static fn (Money $a, Money $b): int => $b->compare($a));

        return array_map(
            static fn (string $what, Money $m): string => "{$what} would be {$m->amount()} more",
            array_keys($more),
            array_values($more),
        );
    }
}
