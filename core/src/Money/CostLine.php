<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Need;
use Magpie\Core\Quantity\Money;

/** One part of the shopping plan. */
final readonly class CostLine
{
    /**
     * @param  list<string>  $roles  needs it fills
     * @param  int  $buy  pieces to buy: needed and spare, less those owned
     * @param  Money|null  $own  cost in the supplier's currency
     * @param  Money|null  $cost  the same in the build's currency; null when it cannot be told
     * @param  Money|null  $spareCost  part of it that only the spares cause
     * @param  string|null  $reason  why there is no cost
     * @param  Lack|null  $lack  the same by its kind
     */
    public function __construct(
        public ?string $part,
        public string $name,
        public array $roles,
        public Account $account,
        public int $pieces,
        public int $spare,
        public int $owned,
        public int $buy,
        public ?Offer $offer,
        public int $packs,
        public ?Money $own,
        public ?Money $cost,
        public ?Money $spareCost,
        public ?string $reason,
        public ?Lack $lack = null,
    ) {
    }

    public static function undecided(Need $need): self
    {
        return new self(
            null,
            $need->role,
            [$need->role],
            Account::Machine,
            $need->quantity,
            0,
            $need->owned,
            $need->quantity,
            null,
            0,
            null,
            null,
            null,
            "no part is chosen for {$need->role}",
            Lack::Choice,
        );
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'part' => $this->part,
            'name' => $this->name,
            'roles' => $this->roles,
            'account' => $this->account->value,
            'pieces' => $this->pieces,
            'spare' => $this->spare,
            'owned' => $this->owned,
            'buy' => $this->buy,
            'offer' => $this->offer?->ref,
            'supplier' => $this->offer?->supplier,
            'pack' => $this->offer?->pack,
            'packs' => $this->packs,
            'left_over' => $this->offer === null ? 0 : $this->packs * $this->offer->pack - $this->buy,
            'price' => $this->offer?->price->exactAmount(),
            'currency' => $this->offer?->price->currency,
            'price_date' => $this->offer?->date,
            'cost' => $this->cost?->amount(),
            'reason' => $this->reason,
        ];
    }
}
