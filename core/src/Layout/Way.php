<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** The way of one lead from body to body, or why there is none yet. */
final readonly class Way
{
    /**
     * @param  list<array{what: string, mm: float}>  $parts  what the bare way comes from
     * @param  list<array{what: string, mm: float}>  $spare  what comes on top: slack and ends
     * @param  list<array{float, float, float}>  $points
     * @param  list<string>  $ducts  places of the channels it lies in, in order
     * @param  array<string, float>  $inDuct  place of a channel → mm of it that lie there
     * @param  list<string>  $chains  places of the chains it goes through
     * @param  string|null  $waits  for what
     * @param  list<string>  $loose  axes that move one end against the other with no chain
     * @param  list<string>  $places  places it was worked from
     * @param  list<string>  $axes  of which the travel counts
     */
    public function __construct(
        public string $lead,
        public array $parts = [],
        public array $spare = [],
        public array $points = [],
        public array $ducts = [],
        public array $inDuct = [],
        public array $chains = [],
        public ?string $waits = null,
        public array $loose = [],
        public array $places = [],
        public array $axes = [],
    ) {
    }

    /**
     * @return list<array{what: string, mm: float}> all that its length comes from
     */
    public function all(): array
    {
        return [...$this->parts, ...$this->spare];
    }

    /** With slack and both ends, in mm; null where it waits. */
    public function length(): ?float
    {
        return $this->waits === null ? array_sum(array_column($this->all(), 'mm')) : null;
    }

    /** The bare way, with nothing to spare. */
    public function bare(): ?float
    {
        return $this->waits === null ? array_sum(array_column($this->parts, 'mm')) : null;
    }
}
