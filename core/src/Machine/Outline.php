<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** The outside of a machine, as it has to be carried in and stood. */
final readonly class Outline
{
    public function __construct(
        public ?Quantity $length = null,
        public ?Quantity $width = null,
        public ?Quantity $height = null,
        public ?Quantity $mass = null,
        public ?Evidence $evidence = null,
    ) {
    }

    public function isEmpty(): bool
    {
        return $this->length === null && $this->width === null && $this->height === null && $this->mass === null;
    }
}
