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
     * @param  bool  $isDrawn  nobody typed its length: it follows from where its ends sit
     * @param  Evidence  $lengthRests  what its length rests on
     * @param  list<string>  $through  needs of the chains its way goes through, besides the one that is named
     * @param  bool  $moves  an axis moves one of its ends against the other
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
        public bool $isDrawn = false,
        public Evidence $lengthRests = Evidence::Measured,
        public array $through = [],
        public bool $moves = false,
    ) {
    }

    /**
     * The same lead as its way has it; a length that was typed stays.
     *
     * @param  list<string>  $through
     */
    public function drawn(Quantity $length, Evidence $rests, array $through, bool $moves): self
    {
        $own = $this->length === null ? ['length' => $length, 'isDrawn' => true, 'lengthRests' => $rests] : [];

        return new self(...$own + ['through' => $through, 'moves' => $moves] + get_object_vars($this));
    }

    /** The same lead with only what somebody said of it. */
    public function asSaid(): self
    {
        if (! $this->isDrawn && ! $this->moves && $this->through === []) {
            return $this;
        }

        return new self(
            ...[
                'length' => $this->isDrawn ? null : $this->length,
                'isDrawn' => false,
                'lengthRests' => Evidence::Measured,
                'through' => [],
                'moves' => false,
            ] + get_object_vars($this),
        );
    }

    /** Whether it lies in this chain, as somebody says or as its way has it. */
    public function liesIn(string $chain): bool
    {
        return $this->chain === $chain || in_array($chain, $this->through, true);
    }

    /** Whether it bends while the machine works. */
    public function isFlexing(): bool
    {
        return $this->route === 'flexing' || $this->moves;
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
