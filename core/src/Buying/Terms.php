<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Buying\ShippingStep;
use Magpie\Core\Machine\Buying\Supplier;
use Magpie\Core\Money\Basket;
use Magpie\Core\Money\Exchange;
use Magpie\Core\Quantity\Money;

/**
 * What goods of any value cost at one supplier until they are at the door (S01), in the build's currency: between two
 * thresholds of its terms a straight line, with a jump at each. Goods are counted in millionths of the supplier's
 * currency, so that "from 50" is met by 50 exactly. A stretch is: goods from and to, both within, its cost at none and
 * for each unit more.
 *
 * @phpstan-type Stretch array{int, int, float, float}
 */
final readonly class Terms
{
    public const UNIT = 1_000_000;

    /** No basket is worth more: a thousand million. */
    private const MOST = 1_000_000_000 * self::UNIT;

    /**
     * @param  list<Stretch>  $stretches  ascending; a supplier may take no order below the first
     * @param  bool  $unsaid  shipping of some value is not said: it is counted as none, and has to be told so
     */
    private function __construct(public Supplier $supplier, public array $stretches, public bool $unsaid)
    {
    }

    /** Null where no rate turns the supplier's currency into the build's. */
    public static function of(Supplier $supplier, Exchange $exchange): ?self
    {
        $worth = $exchange->convert(Money::of(self::UNIT, $supplier->currency));
        if ($worth === null) {
            return null;
        }
        $rate = (float) $worth->exactAmount() / self::UNIT;
        $least = $supplier->leastOrder === null ? 1 : max(1, self::units($supplier->leastOrder));
        $starts = [$least => true];
        foreach ($supplier->shipping as $step) {
            $starts[self::units($step->from)] = true;
        }
        foreach ([$supplier->dutyFree, $supplier->taxFree] as $free) {
            // Up to it is free; it begins with the next unit.
            $free !== null && ($starts[self::units($free) + 1] = true);
        }
        $starts = array_filter(array_keys($starts), static fn (int $at): bool => $at >= $least && $at < self::MOST);
        sort($starts);
        $stretches = [];
        $unsaid = false;
        foreach ($starts as $i => $from) {
            $to = ($starts[$i + 1] ?? self::MOST) - 1;
            // Two goods values of the stretch, a whole unit of money apart, tell its line.
            $low = self::landed($supplier, $from);
            $high = self::landed($supplier, $from + self::UNIT, $from);
            $slope = (($high - $low) / self::UNIT) * $rate;
            $stretches[] = [$from, $to, $low * $rate - $slope * $from, $slope];
            $unsaid = $unsaid || $supplier->shippingFor(self::money($supplier, $from)) === null;
        }

        return new self($supplier, $stretches, $unsaid);
    }

    public static function units(Money $amount): int
    {
        return (int) round((float) $amount->exactAmount() * self::UNIT);
    }

    public static function money(Supplier $supplier, int $goods): Money
    {
        return Money::of(sprintf('%d.%06d', intdiv($goods, self::UNIT), $goods % self::UNIT), $supplier->currency);
    }

    /**
     * @param  int|null  $as  goods on whose side of every threshold it is reckoned
     */
    private static function landed(Supplier $supplier, int $goods, ?int $as = null): float
    {
        if ($as === null) {
            return (float) (new Basket($supplier, self::money($supplier, $goods)))->total->exactAmount();
        }
        // The same terms on both sides of a threshold that lies in between.
        $at = self::money($supplier, $as);
        $flat = new Supplier(
            $supplier->ref,
            $supplier->name,
            $supplier->currency,
            $supplier->shippingFor($at) === null
                ? []
                : [
                    new ShippingStep(
                        Money::zero($supplier->currency),
                        $supplier->shippingFor($at),
                    ),
                ],
            tax: $supplier->taxFree !== null && $at->compare($supplier->taxFree) <= 0 ? null : $supplier->tax,
            duty: $supplier->dutyFree !== null && $at->compare($supplier->dutyFree) <= 0 ? null : $supplier->duty,
            fee: $supplier->fee,
        );

        return (float) (new Basket($flat, self::money($supplier, $goods)))->total->exactAmount();
    }
}
