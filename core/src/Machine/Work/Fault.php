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
