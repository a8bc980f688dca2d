<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;

/** A supplier's price for a pack of a part on a day. */
final readonly class Offer
{
    public function __construct(
        public string $ref,
        public string $part,
        public string $supplier,
        public Money $price,
        public int $pack,
        public string $date,
        public ?string $article = null,
    ) {
    }
}
