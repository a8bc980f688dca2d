<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;

/** What a pack cost on an earlier day (YYYY-MM-DD). */
final readonly class PastPrice
{
    public function __construct(public string $date, public Money $price)
    {
    }
}
