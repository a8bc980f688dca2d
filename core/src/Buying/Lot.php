<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Quantity\Money;

/** So many packs of one offer. */
final readonly class Lot
{
    public function __construct(public Offer $offer, public int $packs)
    {
    }

    public function pieces(): int
    {
        return $this->packs * $this->offer->pack;
    }

    public function cost(): Money
    {
        return $this->offer->costOf($this->packs);
    }
}
