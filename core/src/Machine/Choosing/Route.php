<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Brick\Math\BigDecimal;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/** One way to come by the machine: ready built, as a kit, sourced part by part, or a mix. */
final readonly class Route
{
    /**
     * Work apart, since a builder is quick at one and slow at another. Printing is the machine's time, the rest the
     * builder's.
     */
    /**
     * @param  bool  $wholeBuild  it buys every need of the build as the build plans it
     * @param  list<string>  $needs  needs of the build it buys besides its own lines
     * @param  list<RouteLine>  $lines
     * @param  list<string>  $inBox  what comes in its box, in words
     * @param  array<string, Quantity>  $hours  guide hours by kind of work
     * @param  Quantity|null  $filament  mass to be printed
     * @param  Money|null  $resale  what is left over can be sold for
     */
    public function __construct(
        public string $ref,
        public string $name,
        public RouteKind $kind,
        public bool $wholeBuild = false,
        public array $needs = [],
        public array $lines = [],
        public array $inBox = [],
        public array $hours = [],
        public ?Quantity $filament = null,
        public ?int $waitDays = null,
        public ?Grade $documentation = null,
        public ?Grade $support = null,
        public ?Freedom $freedom = null,
        public ?Money $resale = null,
        public ?string $notes = null,
    ) {
    }

    /** The same route when all lines of a kind are in the drawer already. */
    public function owning(LineKind $kind): self
    {
        return $this->relined(
            static fn (RouteLine $l): RouteLine => $l->kind === $kind ? $l->with(['owned' => $l->pieces]) : $l,
        );
    }

    /** The same route with its box at a multiple of its price. */
    public function boxAt(string $factor): self
    {
        return $this->relined(
            static fn (RouteLine $l): RouteLine => $l->kind === LineKind::Box && $l->price !== null
                ? $l->with([
                    'price' => Money::of(
                        (string) BigDecimal::of($l->price->exactAmount())->multipliedBy($factor),
                        $l->price->currency,
                    ),
                ])
                : $l,
        );
    }

    public function unsold(): self
    {
        return new self(...['resale' => null] + get_object_vars($this));
    }

    /**
     * @param  callable(RouteLine): RouteLine  $change
     */
    private function relined(callable $change): self
    {
        return new self(...['lines' => array_map($change, $this->lines)] + get_object_vars($this));
    }
}
