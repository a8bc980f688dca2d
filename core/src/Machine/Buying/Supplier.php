<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

final readonly class Supplier
{
    /**
     * @param  list<ShippingStep>  $shipping  by goods value, ascending
     * @param  Quantity|null  $tax  rate added to goods, shipping and duty; null when prices include it
     * @param  Quantity|null  $duty  rate added to goods and shipping at the border
     * @param  Money|null  $dutyFree  goods up to this value pay no duty
     * @param  Money|null  $taxFree  goods up to this value pay no tax
     * @param  Quantity|null  $fee  what paying abroad costs, as a share of all that is paid
     * @param  Money|null  $leastOrder  goods an order has at least
     * @param  bool  $avoid  nothing is to be bought there
     */
    public function __construct(
        public string $ref,
        public string $name,
        public string $currency,
        public array $shipping = [],
        public ?Quantity $tax = null,
        public ?int $leadDays = null,
        public ?string $notes = null,
        public ?Quantity $duty = null,
        public ?Money $dutyFree = null,
        public ?Money $taxFree = null,
        public ?Quantity $fee = null,
        public ?Money $leastOrder = null,
        public bool $avoid = false,
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
