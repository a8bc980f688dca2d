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

    /** How far it came off its nominal; null while it is not measured. */
    public function off(): ?Quantity
    {
        return $this->measured?->minus($this->nominal);
    }

    /** Whether it is measured, and further off than it may be. */
    public function isOut(): bool
    {
        return abs($this->off()?->in('mm') ?? 0.0) > $this->tolerance->in('mm');
    }
}
