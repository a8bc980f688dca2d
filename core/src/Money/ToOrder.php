<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Buying\PurchaseState;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Purpose;

/**
 * What is still to be ordered, from what the build needs: places and spares, less what is owned, here or on its way.
 * What was bought and is for nothing is listed as well.
 */
final readonly class ToOrder
{
    /**
     * @return list<OrderLine> by name
     */
    public static function of(Build $build): array
    {
        $needs = $bought = $printed = $lines = [];
        $offered = array_flip(array_map(static fn (Offer $o): string => $o->part, $build->offers));
        foreach ($build->needs as $need) {
            $part = $build->fitted($need->ref)?->part->ref;
            if ($part !== null) {
                $needs[$part][] = $need;
            }
        }
        foreach ($build->purchases as $purchase) {
            $bought[$purchase->part][] = $purchase;
        }
        foreach ($build->prints as $run) {
            $printed[$run->part] = ($printed[$run->part] ?? 0) + $run->made();
        }
        foreach ($build->parts as $part) {
            if (isset($needs[$part->ref]) || isset($bought[$part->ref])) {
                $lines[] = self::line(
                    $build,
                    $part->ref,
                    $needs[$part->ref] ?? [],
                    $bought[$part->ref] ?? [],
                    $printed[$part->ref] ?? 0,
                    // What somebody sells is bought; the rest of what is printed comes off the workshop's own printers.
                    $part->can(Ability::Printed) && ! isset($offered[$part->ref]),
                );
            }
        }
        usort($lines, static fn (OrderLine $a, OrderLine $b): int => strnatcasecmp($a->name, $b->name));

        return $lines;
    }

    /**
     * Places nothing was chosen for yet: they cannot be ordered.
     *
     * @return list<string>
     */
    public static function undecided(Build $build): array
    {
        return array_values(
            array_map(
                static fn (Need $n): string => $n->role,
                array_filter($build->needs, static fn (Need $n): bool => $build->fitted($n->ref) === null),
            ),
        );
    }

    /**
     * @param  list<Need>  $needs
     * @param  list<Purchase>  $bought
     */
    private static function line(
        Build $build,
        string $part,
        array $needs,
        array $bought,
        int $printed,
        bool $made,
    ): OrderLine {
        $needed = $spare = $owned = $here = $coming = $considered = 0;
        foreach ($needs as $need) {
            $needed += $need->quantity;
            $spare += $need->sparesOf($need->quantity);
            $owned += $need->owned;
        }
        foreach ($bought as $purchase) {
            $here += $purchase->here();
            $coming += $purchase->onTheWay();
            $considered += $purchase->state === PurchaseState::Considered ? $purchase->pieces : 0;
        }

        return new OrderLine(
            $part,
            $build->parts[$part]->name,
            array_map(static fn (Need $n): string => $n->role, $needs),
            $needed,
            $spare,
            $owned,
            $here,
            $coming,
            $considered,
            [
                ...self::countDoubts($needed + $spare, $owned + $here + $printed, $coming, $considered),
                ...self::doubts($build, $needs, $bought, $here, $coming + $considered),
                ...self::dear($build, $part, $needs),
            ],
            $printed,
            $made,
        );
    }

    /**
     * Halved, doubled or misread: said before it is ordered, not at the bench.
     *
     * @return list<string>
     */
    private static function countDoubts(int $whole, int $there, int $coming, int $considered): array
    {
        $doubts = [];
        $sum = $there + $coming + $considered;
        if ($considered > 0 && $sum < $whole) {
            $half = 2 * $sum === $whole ? ', half of it' : '';
            $doubts[] = "needed {$whole}, in the basket and at hand {$sum}{$half}";
        }
        if ($considered + $coming > 0 && $whole > 0 && $sum > $whole) {
            $more = $sum === 2 * $whole ? ', twice as many' : '';
            $doubts[] = "needed {$whole}, with what is bought {$sum}{$more}";
        }

        return $doubts;
    }

    /**
     * More is asked of a supplier than it had: two orders for its last piece.
     *
     * @param  list<Purchase>  $bought
     * @return list<string>
     */
    private static function beyondStock(Build $build, array $bought): array
    {
        $had = $asked = $since = $unsaid = [];
        foreach ($build->offers as $offer) {
            if ($offer->part === ($bought[0]->part ?? null)) {
                $had[$offer->supplier] = ($had[$offer->supplier] ?? 0) + ($offer->stock ?? 0) * $offer->pack;
                $since[$offer->supplier] = max($since[$offer->supplier] ?? '', $offer->date);
                $unsaid += $offer->stock === null ? [$offer->supplier => true] : [];
            }
        }
        foreach ($bought as $purchase) {
            // What was ordered before its stock was noted is no longer part of it.
            if ($purchase->date >= ($since[$purchase->supplier] ?? '')) {
                $asked[$purchase->supplier] =
                    ($asked[$purchase->supplier] ?? 0) +
                    $purchase->onTheWay() +
                    ($purchase->state === PurchaseState::Considered ? $purchase->pieces : 0);
            }
        }
        $doubts = [];
        foreach ($asked as $supplier => $pieces) {
            if (isset($had[$supplier]) && ! isset($unsaid[$supplier]) && $pieces > $had[$supplier]) {
                $doubts[] = "{$pieces} are asked of {$build->suppliers[$supplier]->name}, which had {$had[$supplier]} on {$since[$supplier]}";
            }
        }

        return $doubts;
    }

    /**
     * A piece that costs more than it is worth to the builder, wherever it is bought.
     *
     * @param  list<Need>  $needs
     * @return list<string>
     */
    private static function dear(Build $build, string $part, array $needs): array
    {
        $worth = null;
        foreach ($needs as $need) {
            $worth = $need->worth === null || $worth?->compare($need->worth) === -1 ? $worth : $need->worth;
        }
        if ($worth === null) {
            return [];
        }
        $exchange = new Exchange($build->rates, $build->plan->currency);
        $least = null;
        foreach ($build->offers as $offer) {
            $piece =
                $offer->part === $part
                    ? $exchange->convert($offer->price->against((string) $offer->pack, $offer->price->currency))
                    : null;
            $least = $piece === null || $least?->compare($piece) === -1 ? $least : $piece;
        }

        return $least === null || $least->compare($worth) <= 0
            ? []
            : ["a piece costs {$least} at least, and is worth {$worth} to you"];
    }

    /**
     * @param  list<Need>  $needs
     * @param  list<Purchase>  $bought
     * @param  int  $here  pieces of it that came
     * @param  int  $more  pieces that are ordered or in the basket
     * @return list<string>
     */
    private static function doubts(Build $build, array $needs, array $bought, int $here, int $more): array
    {
        $doubts = [];
        if ($needs === [] && $here + $more > 0) {
            $doubts[] = 'for nothing in this build: say what it is for, or let it move to another';
        }
        foreach ($bought as $purchase) {
            foreach ($build->offers as $offer) {
                $same = $offer->part === $purchase->part && $offer->supplier === $purchase->supplier;
                if (
                    $same &&
                    $purchase->article !== null &&
                    $offer->article !== null &&
                    $purchase->article !== $offer->article
                ) {
                    $doubts[] = "article {$purchase->article} was bought, {$offer->article} was offered";
                }
            }
        }
        $doubts = [...$doubts, ...self::beyondStock($build, $bought)];
        foreach ($needs as $need) {
            if ($need->purpose === Purpose::Backup && $need->owned >= $need->quantity && $more > 0) {
                $doubts[] = "{$need->role} is a backup that is there already";
            }
        }

        return array_values(array_unique($doubts));
    }
}
