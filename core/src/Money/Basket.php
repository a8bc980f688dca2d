<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Machine\Buying\Supplier;
use Magpie\Core\Quantity\Money;

/**
 * Goods of one value at one supplier, until they are at the door (S01): shipping by step, duty and tax above their
 * thresholds, the fee of paying. All in the supplier's currency.
 */
final readonly class Basket
{
    public Money $duty;

    public Money $tax;

    public Money $fee;

    public Money $total;

    /** Null when the supplier's terms do not say. */
    public ?Money $shipping;

    public function __construct(public Supplier $supplier, public Money $goods)
    {
        $none = Money::zero($supplier->currency);
        $this->shipping = $supplier->shippingFor($goods);
        $sent = $goods->plus($this->shipping ?? $none);
        $this->duty =
            $supplier->duty !== null && self::above($goods, $supplier->dutyFree)
                ? $sent->times($supplier->duty)
                : $none;
        $this->tax =
            $supplier->tax !== null && self::above($goods, $supplier->taxFree)
                ? $sent->plus($this->duty)->times($supplier->tax)
                : $none;
        $landed = $sent->plus($this->duty)->plus($this->tax);
        $this->fee = $supplier->fee === null ? $none : $landed->times($supplier->fee);
        $this->total = $landed->plus($this->fee);
    }

    /** What the border and the bank take, each to the cent, as they ask it. */
    public function charges(): Money
    {
        return $this->duty->cents()->plus($this->tax->cents())->plus($this->fee->cents());
    }

    /** What is paid in the end: the sum of what stands in the rows, each to the cent. */
    public function paid(): Money
    {
        $sent = $this->goods->cents()->plus($this->charges());

        return $this->shipping === null ? $sent : $sent->plus($this->shipping->cents());
    }

    private static function above(Money $goods, ?Money $free): bool
    {
        return $free === null || $goods->compare($free) > 0;
    }
}
