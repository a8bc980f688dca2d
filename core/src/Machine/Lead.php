<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/**
 * What runs between two ports, from the source towards the load: out and back, with a termination at each end.
 */
final readonly class Lead
{
    /**
     * @param  array{LeadEnd, LeadEnd}  $ends
     * @param  int  $bundledWith  other loaded circuits in the same bundle
     * @param  string|null  $protection  need ref of the fuse or breaker in this lead
     * @param  bool  $made  it is cut, crimped and labelled
     * @param  string|null  $chain  need of the cable chain it runs through
     * @param  Quantity|null  $diameter  over its sheath
     * @param  Quantity|null  $bond  resistance read along an earth lead, from the plug's pin to the metal it bonds
     */
    public function __construct(
        public string $ref,
        public PortRef $from,
        public PortRef $to,
        public Conductor $conductor,
        public ?Quantity $length,
        public ?string $route,
        public int $bundledWith,
        public array $ends,
        public ?string $protection = null,
        public ?string $notes = null,
        public bool $made = false,
        public ?string $chain = null,
        public ?Quantity $diameter = null,
        public ?Quantity $bond = null,
    ) {
    }

    public function label(): string
    {
        return "{$this->ref} {$this->from->text()} → {$this->to->text()}";
    }

    /** Conductors that are really in parallel: a wire joined at one end only carries nothing. */
    public function effectiveConductors(): int
    {
        return max(
            1,
            min(
                $this->conductor->parallel,
                $this->ends[0]->conductors ?? $this->conductor->parallel,
                $this->ends[1]->conductors ?? $this->conductor->parallel,
            ),
        );
    }
}
