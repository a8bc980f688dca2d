<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Quantity\Quantity;

final readonly class Supplier
{
    /**
     * @param  list<ShippingStep>  $shipping  by goods value, ascending
     * @param  Quantity|null  $tax  rate added to goods and shipping; null when prices include it
     */
    public function __construct(
        public string $ref,
        public string $name,
        public string $currency,
        public array $shipping = [],
        public ?Quantity $tax = null,
        public ?int $leadDays = null,
        public ?string $notes = null,
    ) {
    }

    /** Shipping for goods of this value; null when the supplier's terms do not say. */
    public function shippingFor(Money $goods): ?Money
    {
        $found = null;
        foreach ($this->shipping as $step) {
            if ($goods->compare($step->from) >= 0) {
                $found = $step->cost;
            }
        }

        return $found;
    }
}
