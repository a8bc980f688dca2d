<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/**
 * A place in the machine that a part has to fill. Leads, mates and scenarios speak of needs, so the part can change.
 */
final readonly class Need
{
    /**
     * @param  list<string>  $candidates  part refs that could fill it
     * @param  Quantity|null  $spares  share bought on top for loss and wear
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
    ) {
    }
}
