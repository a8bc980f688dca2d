<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * A place in the machine that a part has to fill. Leads, mates and scenarios speak of needs, so the part can change.
 */
final readonly class Need
{
    /**
     * @param  list<string>  $candidates  part refs that could fill it
     * @param  Quantity|null  $spares  share bought on top for loss and wear
     * @param  Purpose|null  $purpose  why it is there, one of PURPOSES
     * @param  array<string, int>  $weights  how much each compared value matters to the builder, 0 to 5
     * @param  Stage|null  $stage  how far it is, where that is not as far as the build
     * @param  Quantity|null  $opening  that was cut for it, measured
     * @param  list<Piece>  $pieces  of the quantity, those that have a name; in their order
     * @param  Money|null  $worth  what one piece is worth buying for, in the build's currency: above it, do without
     * @param  string|null  $seat  what it sits in: a hot end or plate, "hot-end", or one place of it, "board.drv-x"
     */
    public function __construct(
        public string $ref,
        public string $role,
        public string $family,
        public int $quantity,
        public array $candidates,
        public ?string $choice,
        public ?string $reason = null,
        public ?Quantity $spares = null,
        public int $owned = 0,
        public ?Purpose $purpose = null,
        public ?Scale $scale = null,
        public array $weights = [],
        public ?string $seat = null,
        public array $pieces = [],
        public ?Quantity $opening = null,
        public ?Stage $stage = null,
        public ?Money $worth = null,
    ) {
    }

    /** The need it sits in. */
    public function host(): ?string
    {
        return $this->seat === null ? null : explode('.', $this->seat, 2)[0];
    }

    /** What a piece is called: by its own name, or as one of so many; just the role where there is one. */
    public function pieceName(int $number): string
    {
        return match (true) {
            isset($this->pieces[$number - 1]) => "{$this->role} ({$this->pieces[$number - 1]->name})",
            $this->quantity === 1 => $this->role,
            default => "{$this->role} ({$number} of {$this->quantity})",
        };
    }

    /** Pieces bought on top of so many, for loss and wear. */
    public function sparesOf(int $pieces): int
    {
        return $this->spares === null ? 0 : (int) ceil($this->spares->times($pieces)->in('') - 1e-9);
    }

    /** The same need with so many of its pieces in the drawer. */
    public function owning(int $pieces): self
    {
        return new self(...['owned' => $pieces] + get_object_vars($this));
    }

    /** The same need filled so many times over. */
    public function times(int $factor): self
    {
        return new self(...['quantity' => $this->quantity * $factor] + get_object_vars($this));
    }

    public function choosing(?string $part): self
    {
        return new self(...['choice' => $part] + get_object_vars($this));
    }
}
