<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** A check's threshold changed by the builder, with the reason. */
final readonly class Limit
{
    public function __construct(
        public string $check,
        public string $key,
        public Quantity $value,
        public string $reason,
    ) {
    }
}
