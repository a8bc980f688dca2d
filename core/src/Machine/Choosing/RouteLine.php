<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Evidence;
use Magpie\Core\Quantity\Money;

/** Something a route has to pay for: the box itself, what the box leaves out, tools, things used up, spares. */
final readonly class RouteLine
{
    public function __construct(
        public string $what,
        public LineKind $kind,
        public int $pieces,
        public ?Money $price,
        public ?string $supplier,
        public int $pack = 1,
        public int $owned = 0,
        public Evidence $evidence = Evidence::Assumed,
    ) {
    }

    /** Packs still to be bought. */
    public function packs(): int
    {
        return (int) ceil(max(0, $this->pieces - $this->owned) / $this->pack);
    }

    /**
     * @param  array<string, mixed>  $members
     */
    public function with(array $members): self
    {
        return new self(...$members + get_object_vars($this));
    }
}
