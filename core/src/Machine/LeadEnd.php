<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

final readonly class LeadEnd
{
    /**
     * @param  string|null  $contact  part ref of the contact or housing at this end
     * @param  bool  $made  it is on
     * @param  Quantity|null  $pulled  force it stood when it was pulled
     * @param  int|null  $conductors  conductors joined here, when fewer than the lead has
     */
    public function __construct(
        public ?Termination $termination = null,
        public ?string $contact = null,
        public ?int $contactsPerPole = null,
        public ?bool $strainRelief = null,
        public ?int $conductors = null,
        public bool $made = false,
        public ?Quantity $pulled = null,
    ) {
    }
}
