<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Inspection\Settled;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Buying\Rate;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Part;
use Magpie\Core\Quantity\Money;

/**
 * What the build costs: packs to buy at the cheapest offer, shipping by supplier, tax, spares, contingency; planned
 * against paid. What has no price is listed, never counted as free.
 *
 * @phpstan-import-type BesideSums from Beside
 *
 * @phpstan-type Sums array{currency: string, baskets: list<array<string, mixed>>, accounts: array<string, string>,
 *     spares: string, shipping: string, tax: string, contingency: string, contingency_share: float|null,
 *     planned: string, budget: string|null, budget_left: string|null, budget_used: float|null, paid: string,
 *     owed: string, here: string, coming: string, moved: string, fetched: string, abandoned: string, considered: string, purchases: list<array<string, mixed>>, faults: string, rates: list<array<string, mixed>>,
 *     open: list<string>, lacks: list<string>, without_rate: list<string>}
 */
final class MoneyLedger implements Settled
{
    private readonly Exchange $exchange;

    /** @var Sums|null worked out once */
    private ?array $sums = null;

    /** @var array<string, list<Offer>> by part */
    private readonly array $offers;

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static function (Survey $b): self {
            $ledger = new self($b->build);
            $ledger->sums = $ledger->sums($ledger->lines());

            return $ledger;
        });
    }

    public function __construct(private readonly Build $build)
    {
        $this->exchange = new Exchange($build->rates, $build->plan->currency);
        $offers = [];
        foreach ($build->offers as $offer) {
            $offers[$offer->part][] = $offer;
        }
        $this->offers = $offers;
    }

    /**
     * Amounts as decimal texts in the build's currency unless a `currency` stands beside them.
     *
     * @param  bool  $wholeList  false for the totals alone, without the line of each part
     * @return array{lines: list<array<string, mixed>>, currency: string, baskets: list<array<string, mixed>>,
     *     accounts: array<string, string>, spares: string, shipping: string, tax: string, contingency: string,
     *     contingency_share: float|null, planned: string, budget: string|null, budget_left: string|null,
     *     budget_used: float|null, paid: string, owed: string, here: string, coming: string, moved: string, fetched: string, abandoned: string,
     *     considered: string, remaining?: string, forecast?: string, beside?: BesideSums, purchases: list<array<string, mixed>>, faults: string,
     *     rates: list<array<string, mixed>>, open: list<string>, lacks: list<string>, without_rate: list<string>}
     */
    public function toArray(bool $wholeList = true): array
    {
        $this->sums ??= $this->sums($this->lines());

        return $wholeList
            ? ['lines' => array_map(static fn (CostLine $l): array => $l->toArray(), $this->lines())] +
                    $this->sums +
                    $this->toCome($this->sums)
            : ['lines' => []] + $this->sums;
    }

    /**
     * What is still to be bought, and what it will have cost in the end: worked out for who asks, not with every judgement.
     *
     * @param  Sums  $sums
     * @return array{remaining: string, forecast: string, beside: BesideSums}
     */
    private function toCome(array $sums): array
    {
        [$remaining] = $this->remaining();
        $share = $this->build->plan->contingency;
        $spent = Money::of($sums['paid'], $remaining->currency)->plus(Money::of($sums['owed'], $remaining->currency));

        return [
            'remaining' => $remaining->amount(),
            'forecast' => $spent
                ->plus($remaining)
                ->plus($share === null ? Money::zero($remaining->currency) : $remaining->times($share)->cents())
                ->minus(Money::of($sums['fetched'], $remaining->currency))
                ->amount(),
            'beside' => Beside::of($this->build, $this->cheapest(...)),
        ];
    }

    /**
     * @param  list<CostLine>  $lines
     * @return Sums
     */
    private function sums(array $lines): array
    {
        $zero = Money::zero($this->build->plan->currency);
        $open = $lacks = [];
        $accounts = array_fill_keys(array_map(static fn (Account $a): string => $a->value, Account::cases()), $zero);
        $spares = $zero;
        $goods = $landed = [];
        foreach ($lines as $line) {
            if ($line->reason !== null) {
                $open[] = $line->reason;
                $lacks[] = $line->lack ?? Lack::Price;
            }
            if ($line->cost === null || $line->offer === null || $line->own === null) {
                continue;
            }
            $accounts[$line->account->value] = $accounts[$line->account->value]->plus(
                $line->cost->minus($line->spareCost ?? $zero),
            );
            $spares = $spares->plus($line->spareCost ?? $zero);
            $supplier = $line->offer->supplier;
            $own = $line->own->cents();
            $goods[$supplier] = isset($goods[$supplier]) ? $goods[$supplier]->plus($own) : $own;
            $landed[$supplier] = ($landed[$supplier] ?? $zero)->plus($line->cost);
        }
        $known = count($open);
        [$baskets, $shipping, $tax] = $this->baskets($goods, $landed, $open);
        $lacks = [...$lacks, ...array_fill(0, count($open) - $known, Lack::Shipping)];
        $subtotal = array_reduce($accounts, static fn (Money $sum, Money $m): Money => $sum->plus($m), $zero)
            ->plus($spares)
            ->plus($shipping)
            ->plus($tax);
        $contingency =
            $this->build->plan->contingency === null
                ? $zero
                : $subtotal->times($this->build->plan->contingency)->cents();
        $planned = $subtotal->plus($contingency);
        $spending = new Spending($this->build, $this->exchange);
        $open = [...$open, ...$spending->open];
        $lacks = [...$lacks, ...array_fill(0, count($spending->open), Lack::Purchase)];
        $faults = $zero;
        foreach ($this->build->faults as $fault) {
            $faults = $fault->cost === null ? $faults : $faults->plus($fault->cost->cents());
        }
        $budget = $this->build->plan->budget;

        return [
            'currency' => $this->build->plan->currency,
            'baskets' => $baskets,
            'accounts' => array_map(static fn (Money $m): string => $m->amount(), $accounts),
            'spares' => $spares->amount(),
            'shipping' => $shipping->amount(),
            'tax' => $tax->amount(),
            'contingency' => $contingency->amount(),
            'contingency_share' => $this->build->plan->contingency?->in(''),
            'planned' => $planned->amount(),
            'budget' => $budget?->amount(),
            'budget_left' => $budget?->minus($planned)->amount(),
            'budget_used' => $budget === null ? null : round($planned->shareOf($budget)->in(''), 4),
            'paid' => $spending->paid->amount(),
            'owed' => $spending->owed->amount(),
            'here' => $spending->here->amount(),
            'coming' => $spending->coming->amount(),
            'moved' => $spending->moved->amount(),
            'fetched' => $spending->fetched->amount(),
            'abandoned' => $spending->abandoned->amount(),
            'considered' => $spending->considered->amount(),
            'purchases' => $spending->rows($this->build),
            'faults' => $faults->amount(),
            'rates' => array_values(
                array_map(
                    static fn (Rate $r): array => [
                        'from' => $r->from,
                        'to' => $r->to,
                        'worth' => $r->worth,
                        'date' => $r->date,
                    ],
                    $this->build->rates,
                ),
            ),
            'open' => array_values(array_unique($open)),
            'lacks' => self::counted($lacks),
            'without_rate' => $this->withoutRate(),
        ];
    }

    /**
     * @return list<CostLine> one a part that some need has chosen, dearest first
     */
    public function lines(): array
    {
        $wanted = [];
        $lines = [];
        foreach ($this->build->needs as $need) {
            $fitted = $this->build->fitted($need->ref);
            if ($fitted === null) {
                $lines[] = CostLine::undecided($need);
            } else {
                $wanted[$fitted->part->ref][] = $need;
            }
        }
        foreach ($wanted as $ref => $needs) {
            $lines[] = $this->line(
                $this->build->part((string) $ref) ?? throw new \LogicException("There is no part {$ref}."),
                $needs,
            );
        }
        usort(
            $lines,
            static fn (CostLine $a, CostLine $b): int => match (true) {
                $a->cost !== null && $b->cost !== null => $b->cost->compare($a->cost) ?: strcmp($a->name, $b->name),
                default => [$a->cost === null ? 0 : 1, $a->name] <=> [$b->cost === null ? 0 : 1, $b->name],
            },
        );

        return $lines;
    }

    /**
     * @param  list<Need>  $needs
     */
    private function line(Part $part, array $needs): CostLine
    {
        $pieces = $spare = $owned = 0;
        foreach ($needs as $need) {
            $pieces += $need->quantity;
            $spare += $need->sparesOf($need->quantity);
            $owned += $need->owned;
        }
        $bare = max(0, $pieces - $owned);
        $buy = max(0, $pieces + $spare - $owned);
        [$offer, $cost] = $buy === 0 ? [null, Money::zero($this->build->plan->currency)] : $this->cheapest($part, $buy);
        [$lack, $reason] = $buy > 0 && $cost === null ? $this->whyNoPrice($part) : [null, null];
        if ($reason !== null && $this->isPrinted($part) && $this->hasReel($part)) {
            [$cost, $reason, $lack] = [Money::zero($this->build->plan->currency), null, null];
        }
        $packs = $offer === null ? 0 : $offer->packsFor($buy);
        $spareCost = null;
        if ($offer !== null && $spare > 0 && $cost !== null) {
            $without = $this->exchange->convert($offer->costOf($offer->packsFor($bare)))?->cents();
            $spareCost = $without === null ? null : $cost->minus($without);
        }

        return new CostLine(
            $part->ref,
            $part->name,
            array_map(static fn (Need $n): string => $n->role, $needs),
            $part->family->account(),
            $pieces,
            $spare,
            $owned,
            $buy,
            $offer,
            $packs,
            $offer?->costOf($packs),
            $cost,
            $spareCost,
            $reason,
            $lack,
        );
    }

    /**
     * @return array{Offer|null, Money|null} offer with the least cost for so many pieces, and that cost
     */
    private function cheapest(Part $part, int $pieces): array
    {
        $best = [null, null];
        foreach ($this->offers[$part->ref] ?? [] as $offer) {
            $cost = $this->exchange->convert($offer->costOf($offer->packsFor($pieces)))?->cents();
            if ($cost !== null && ($best[1] === null || $cost->compare($best[1]) < 0)) {
                $best = [$offer, $cost];
            }
        }

        return $best;
    }

    /** Whether it comes off a printer of the workshop: then what it costs is its plastic. */
    private function isPrinted(Part $part): bool
    {
        return $part->can(Ability::Printed) && ! isset($this->offers[$part->ref]) && $this->build->printers !== [];
    }

    /** Whether a reel of what it is printed from is on the list, as a line of its own. */
    private function hasReel(Part $part): bool
    {
        foreach ($this->build->fittedThat(Ability::Feedstock) as $reel) {
            if ($reel->part->spec('material')?->value === $part->spec('material')?->value) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return array{Lack, string}
     */
    private function whyNoPrice(Part $part): array
    {
        foreach ($this->offers[$part->ref] ?? [] as $offer) {
            return [
                Lack::Rate,
                "{$part->name} is priced in {$offer->price->currency}, and no rate to {$this->build->plan->currency} is given",
            ];
        }

        return $this->isPrinted($part)
            ? [Lack::Plastic, "{$part->name} is printed, and no reel of its plastic is on the list"]
            : [Lack::Price, "{$part->name} has no price"];
    }

    /**
     * What the sums leave out, counted by its kind: it stands beside them wherever they stand.
     *
     * @param  list<Lack>  $lacks
     * @return list<string>
     */
    private static function counted(array $lacks): array
    {
        $said = [];
        foreach (Lack::cases() as $kind) {
            $of = count(array_filter($lacks, static fn (Lack $l): bool => $l === $kind));
            if ($of > 0) {
                $said[] = $kind->counted($of);
            }
        }

        return $said;
    }

    /**
     * Currencies something is priced or paid in that no rate turns into the build's.
     *
     * @return list<string>
     */
    private function withoutRate(): array
    {
        $used = [];
        foreach ($this->build->offers as $offer) {
            $used[$offer->price->currency] = true;
        }
        foreach ($this->build->purchases as $purchase) {
            if ($purchase->rate === null) {
                $used[$purchase->paid->currency] = true;
            }
        }
        unset($used[$this->build->plan->currency]);
        ksort($used);

        return array_values(
            array_filter(
                array_map(strval(...), array_keys($used)),
                fn (string $currency): bool => $this->exchange->rateFor($currency) === null,
            ),
        );
    }

    /**
     * @param  array<string, Money>  $goods  by supplier, in the supplier's currency
     * @param  array<string, Money>  $landed  the same in the build's currency, as its lines have it
     * @param  list<string>  $open
     * @return array{list<array<string, mixed>>, Money, Money} baskets, shipping, tax
     */
    private function baskets(array $goods, array $landed, array &$open): array
    {
        $baskets = [];
        $shipping = $tax = $zero = Money::zero($this->build->plan->currency);
        foreach ($goods as $ref => $value) {
            $supplier = $this->build->suppliers[$ref];
            $basket = new Basket($supplier, $value);
            if ($basket->shipping === null) {
                $open[] = "shipping from {$supplier->name} is not known";
            }
            $sent = $basket->shipping === null ? $zero : $this->exchange->convert($basket->shipping)?->cents() ?? $zero;
            $shipping = $shipping->plus($sent);
            // What the border and the bank take counts with the tax.
            $charges = $this->exchange->convert($basket->charges())?->cents() ?? $zero;
            $tax = $tax->plus($charges);
            $rate = $this->exchange->rateFor($supplier->currency);
            $baskets[] = [
                'supplier' => $ref,
                'name' => $supplier->name,
                'currency' => $supplier->currency,
                'goods' => $value->amount(),
                'shipping' => $basket->shipping?->amount(),
                'duty' => $basket->duty->amount(),
                'tax' => $basket->tax->amount(),
                'fee' => $basket->fee->amount(),
                'tax_rate' => $supplier->tax?->in(''),
                'total' => $basket->paid()->amount(),
                'landed' => $landed[$ref]->plus($sent)->plus($charges)->amount(),
                'rate_date' => $supplier->currency === $this->build->plan->currency ? null : $rate?->date,
                'lead_days' => $supplier->leadDays,
            ];
        }

        return [$baskets, $shipping, $tax];
    }

    /**
     * What still has to be bought, at the cheapest offer for each part, at the door.
     *
     * @return array{Money, list<string>} and why it is at least that, where something has no price
     */
    public function remaining(): array
    {
        $open = $goods = $landed = [];
        foreach (ToOrder::undecided($this->build) as $role) {
            $open[] = "no part is chosen for {$role}";
        }
        foreach (ToOrder::of($this->build) as $line) {
            $part = $this->build->parts[$line->part];
            [$offer, $cost] = $line->order() === 0 ? [null, null] : $this->cheapest($part, $line->order());
            if ($offer === null || $cost === null) {
                $open = $line->order() === 0 ? $open : [...$open, $this->whyNoPrice($part)[1]];

                continue;
            }
            $own = $offer->costOf($offer->packsFor($line->order()))->cents();
            $goods[$offer->supplier] = isset($goods[$offer->supplier]) ? $goods[$offer->supplier]->plus($own) : $own;
            $landed[$offer->supplier] = isset($landed[$offer->supplier]) ? $landed[$offer->supplier]->plus($cost) : $cost;
        }
        // What is not said of shipping is told of the whole plan.
        $unsaid = [];
        [, $shipping, $charges] = $this->baskets($goods, $landed, $unsaid);

        return [
            array_reduce($landed, static fn (Money $sum, Money $m): Money => $sum->plus($m), $shipping->plus($charges)),
            $open,
        ];
    }
}
