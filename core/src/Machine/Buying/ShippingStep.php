<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;

/** Shipping costs this much from this value of goods upwards. */
final readonly class ShippingStep
{
    public function __construct(public Money $from, public Money $cost)
    {
    }
}
