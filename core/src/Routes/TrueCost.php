<?php

declare(strict_types=1);

namespace Magpie\Core\Routes;

use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Purpose;
use Magpie\Core\Money\CostLine;
use Magpie\Core\Money\Exchange;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * What the machine really costs, so far and to come: by why each thing is bought, with what comes out of the drawer at
 * its real value, and the price above which the build is not worth going on with against the next better route.
 */
final readonly class TrueCost
{
    public function __construct(private Build $build)
    {
    }

    /**
     * Sums in the build's currency.
     *
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        $money = new MoneyLedger($this->build);
        $ledger = $money->toArray(false);
        $zero = Money::zero($this->build->plan->currency);
        $classes = array_fill_keys([...Purpose::words(), 'tools', 'consumables', 'spares'], $zero);
        $drawer = $zero;
        $worthless = [];
        foreach ($money->lines() as $line) {
            if ($line->cost !== null) {
                foreach ($this->byWhy($line, $line->cost->minus($line->spareCost ?? $zero)) as $class => $share) {
                    $classes[$class] = $classes[$class]->plus($share);
                }
                $classes['spares'] = $classes['spares']->plus($line->spareCost ?? $zero);
            }
            $owned = min($line->owned, $line->pieces);
            if ($owned > 0) {
                $worth = $this->worth((string) $line->part, $owned);
                $drawer = $worth === null ? $drawer : $drawer->plus($worth);
                $worthless = $worth === null ? [...$worthless, $line->name] : $worthless;
            }
        }
        $toll = Money::of($ledger['shipping'], $zero->currency)->plus(Money::of($ledger['tax'], $zero->currency));
        $paid = Money::of($ledger['paid'], $zero->currency);
        // What is paid or owed for is not bought again; what was given up, or was cheaper, is no less to buy.
        [$remaining] = $money->remaining();
        $reserve = $this->build->plan->contingency;
        $toCome = $remaining
            ->plus(Money::of($ledger['owed'], $zero->currency))
            ->plus($reserve === null ? $zero : $remaining->times($reserve));
        $faults = Money::of($ledger['faults'], $zero->currency);
        $whole = $paid->plus($drawer)->plus($faults)->plus($toCome);

        return [
            'currency' => $zero->currency,
            'classes' => array_map(static fn (Money $m): string => $m->amount(), $classes),
            'toll' => $toll->amount(),
            'contingency' => $ledger['contingency'],
            'drawer' => $drawer->amount(),
            'drawer_unpriced' => $worthless,
            'faults' => $faults->amount(),
            'so_far' => $paid->plus($drawer)->plus($faults)->amount(),
            'to_come' => $toCome->amount(),
            'whole' => $whole->amount(),
            'limit' => $this->limit($toCome),
            'open' => $ledger['open'],
        ];
    }

    /**
     * What a line costs by why it is bought: by its pieces, where a part is there for more than one reason.
     *
     * @return array<string, Money>
     */
    private function byWhy(CostLine $line, Money $cost): array
    {
        if ($line->account !== Account::Machine) {
            return [$line->account === Account::Tool ? 'tools' : 'consumables' => $cost];
        }
        $pieces = [];
        foreach ($line->part === null ? [] : $this->build->needs as $need) {
            if ($need->choice === $line->part) {
                $why = $need->purpose->value ?? Purpose::Core->value;
                $pieces[$why] = ($pieces[$why] ?? 0) + $need->quantity;
            }
        }
        $whole = max(1, array_sum($pieces));
        $left = $cost;
        $shares = [];
        foreach (array_slice($pieces, 1, null, true) as $why => $count) {
            $shares[$why] = $cost->times(Quantity::ratio($count / $whole));
            $left = $left->minus($shares[$why]);
        }

        return [array_key_first($pieces) ?? Purpose::Core->value => $left] + $shares;
    }

    /**
     * The price above which going on is not worth it: what the cheapest route that does without this build costs at the
     * door. What is spent already comes back from neither.
     *
     * @return array{route: string, costs: string, worth_it: bool, says: string}|null
     */
    private function limit(Money $toCome): ?array
    {
        foreach ((new RouteComparison($this->build))->ledgers as $ledger) {
            if (! $ledger->route->wholeBuild && $ledger->open === []) {
                $worth = $toCome->compare($ledger->landed) <= 0;

                return [
                    'route' => $ledger->route->name,
                    'costs' => $ledger->landed->amount(),
                    'worth_it' => $worth,
                    'says' => "{$ledger->route->name} is at the door for {$ledger->landed}. What is spent here comes back from neither way; {$toCome} are still to come, so ".
                        ($worth ? 'finishing this build is the cheaper way.' : 'it is now the cheaper way.'),
                ];
            }
        }

        return null;
    }

    /** What so many pieces would cost at the cheapest offer, piece by piece; null without a price. */
    private function worth(string $part, int $pieces): ?Money
    {
        $exchange = new Exchange($this->build->rates, $this->build->plan->currency);
        $best = null;
        foreach ($this->build->offers as $offer) {
            $each =
                $offer->part === $part
                    ? $exchange->convert($offer->price->times($pieces)->times(Quantity::ratio(1 / $offer->pack)))
                    : null;
            $best = $each !== null && ($best === null || $each->compare($best) < 0) ? $each : $best;
        }

        return $best;
    }
}
