<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

use Magpie\Core\Quantity\Quantity;

/** One thing of a reference piece that is measured. */
final readonly class TestFeature
{
    public function __construct(
        public string $name,
        public Quantity $nominal,
        public Quantity $tolerance,
        public ?Quantity $measured = null,
    ) {
    }
}
