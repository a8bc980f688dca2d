<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** Two things that must never meet, as boxes, with the axes that carry them. */
final readonly class Clearance
{
    /**
     * @param  array{ClearanceSide, ClearanceSide}  $between
     * @param  Quantity|null  $least  gap wanted at the closest
     * @param  bool  $preference  less than that is a nuisance, not a fault
     */
    public function __construct(
        public string $ref,
        public string $name,
        public array $between,
        public ?Quantity $least = null,
        public ?Evidence $evidence = null,
        public bool $preference = false,
    ) {
    }
}
