<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;

/** Money that really went out, and what came for it. */
final readonly class Purchase
{
    /**
     * @param  Money  $paid  in all, with its share of shipping and tax
     */
    public function __construct(
        public string $ref,
        public string $part,
        public string $supplier,
        public int $pieces,
        public Money $paid,
        public string $date,
        public int $received = 0,
        public ?string $notes = null,
    ) {
    }
}
