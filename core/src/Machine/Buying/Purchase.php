<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Quantity\Money;

/**
 * A line of an order: pieces of a part from a supplier, what they cost and how far they are. What arrived is looked at,
 * and accepted or sent back, piece by piece; some of it may go to another build, or be sold on.
 */
final readonly class Purchase
{
    /**
     * @param  Money  $paid  so far, with its share of shipping and tax
     * @param  Money|null  $agreed  what it costs in all; null when that is what was paid
     * @param  string|null  $order  the order it is a line of, as its paper calls it
     * @param  string|null  $due  day it is expected (YYYY-MM-DD)
     * @param  string|null  $article  as the supplier calls it, where it is another than the offer's
     * @param  int  $accepted  of those received, looked at and good
     * @param  int  $returned  of those received, sent back or refused
     * @param  string|null  $lot  as its label says
     * @param  string|null  $claimBy  last day a claim can be made (YYYY-MM-DD)
     * @param  string|null  $rate  what one of the supplier's currency was worth in the build's on the day it was paid
     * @param  int  $moved  of those received, gone to another build
     * @param  int  $sold  of those received, sold on
     * @param  Money|null  $fetched  what those fetched, in the build's currency
     * @param  list<Look>  $looks
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
        public PurchaseState $state = PurchaseState::Ordered,
        public ?Money $agreed = null,
        public ?string $order = null,
        public ?string $due = null,
        public ?string $article = null,
        public int $accepted = 0,
        public int $returned = 0,
        public ?string $lot = null,
        public ?string $claimBy = null,
        public ?Claim $claim = null,
        public ?string $rate = null,
        public int $moved = 0,
        public int $sold = 0,
        public ?Money $fetched = null,
        public array $looks = [],
    ) {
    }

    /** Pieces that are still to come. */
    public function onTheWay(): int
    {
        return in_array($this->state, [PurchaseState::Ordered, PurchaseState::Shipped], true)
            ? max(0, $this->pieces - $this->received)
            : 0;
    }

    /** Pieces that are here to be built with, looked at or not. */
    public function here(): int
    {
        return max(0, $this->received - $this->returned - $this->moved - $this->sold);
    }

    /** Pieces that came and that nobody has looked at yet: neither good, nor gone again. */
    public function unseen(): int
    {
        return max(0, $this->received - $this->accepted - $this->returned - $this->moved - $this->sold);
    }

    /** Pieces that went back, or were found bad: whichever are more, since those that went back are among the bad. */
    public function bad(): int
    {
        return max([
            $this->returned,
            0,
            ...array_map(fn (Look $look): int => $look->good ? 0 : $look->pieces ?? $this->received, $this->looks),
        ]);
    }

    /** What is still to be paid of it. */
    public function owed(): Money
    {
        $none = Money::zero($this->paid->currency);
        $owed = $this->agreed?->minus($this->paid) ?? $none;

        return $this->state === PurchaseState::Considered ||
            $this->state === PurchaseState::Abandoned ||
            $owed->isNegative()
            ? $none
            : $owed;
    }
}
