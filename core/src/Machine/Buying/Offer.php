<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;

/** A supplier's price for a pack of a part on a day. */
final readonly class Offer
{
    /**
     * @param  list<PriceBreak>  $breaks  prices of a pack for more of them, by packs ascending
     * @param  int  $least  packs an order has at least
     * @param  int|null  $stock  packs there are; null when nobody says
     * @param  int|null  $leadDays  where it takes another time than the supplier's usual
     * @param  bool  $pinned  wherever it is cheaper, it is bought here
     * @param  list<PastPrice>  $past  what it cost before, oldest first
     */
    public function __construct(
        public string $ref,
        public string $part,
        public string $supplier,
        public Money $price,
        public int $pack,
        public string $date,
        public ?string $article = null,
        public array $breaks = [],
        public int $least = 1,
        public ?int $stock = null,
        public ?int $leadDays = null,
        public bool $pinned = false,
        public array $past = [],
    ) {
    }

    /** Price of one pack when so many are bought. */
    public function priceFor(int $packs): Money
    {
        $price = $this->price;
        foreach ($this->breaks as $break) {
            $price = $packs >= $break->from ? $break->price : $price;
        }

        return $price;
    }

    /** Packs that have so many pieces, and are as many as are sold at least. */
    public function packsFor(int $pieces): int
    {
        return $pieces === 0 ? 0 : max($this->least, (int) ceil($pieces / $this->pack));
    }

    public function costOf(int $packs): Money
    {
        return $this->priceFor($packs)->times($packs);
    }
}
