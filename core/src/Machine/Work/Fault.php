<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/** Something that went wrong, on a part or at a step. */
final readonly class Fault
{
    /**
     * @param  list<string>  $photos  names of stored pictures
     * @param  string  $found  day it was found, YYYY-MM-DD
     * @param  int|null  $days  of the calendar that the build stood still
     * @param  list<Mark>  $marks
     * @param  string|null  $lot  that the part came of
     * @param  string|null  $practice  way of working it came of, in words that a second one can share
     * @param  list<string>  $rework  steps that put it right
     * @param  string|null  $caught  what earlier look or reading would have caught it
     */
    public function __construct(
        public string $ref,
        public string $what,
        public Severity $severity,
        public FaultState $state,
        public string $found,
        public ?FaultKind $kind = null,
        public ?string $need = null,
        public ?string $step = null,
        public ?string $cause = null,
        public ?string $fix = null,
        public ?Money $cost = null,
        public ?Quantity $lost = null,
        public array $photos = [],
        public ?string $lead = null,
        public ?FoundBy $by = null,
        public ?string $tried = null,
        public ?Hand $hand = null,
        public ?int $days = null,
        public array $marks = [],
        public ?string $lot = null,
        public ?string $practice = null,
        public array $rework = [],
        public ?string $caught = null,
    ) {
    }

    public function isOpen(): bool
    {
        return $this->state === FaultState::Open || $this->state === FaultState::Understood;
    }

    public function forbidsPower(): bool
    {
        return $this->severity === Severity::Danger && $this->isOpen();
    }
}
