<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;

/** A pack costs this much where so many packs or more are bought. */
final readonly class PriceBreak
{
    public function __construct(public int $from, public Money $price)
    {
    }
}
