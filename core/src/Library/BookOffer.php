<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

use Magpie\Core\Quantity\Money;

/** A dated price of one supplier. */
final readonly class BookOffer
{
    public function __construct(
        public string $supplier,
        public Money $price,
        public string $date,
        public int $pack = 1,
        public ?int $leadDays = null,
        public ?string $article = null,
    ) {
    }
}
