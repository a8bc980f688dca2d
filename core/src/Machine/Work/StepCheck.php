<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Quantity\Quantity;

/** What to measure before going on, and what was found. */
final readonly class StepCheck
{
    /**
     * @param  Quantity  $tolerance  either way, in the nominal's dimension
     */
    public function __construct(
        public string $what,
        public Quantity $nominal,
        public Quantity $tolerance,
        public ?Quantity $measured = null,
    ) {
    }

    /** How far the reading is from nominal, without sign. */
    public function deviation(): ?Quantity
    {
        return $this->measured === null
            ? null
            : Quantity::max($this->measured->minus($this->nominal), $this->nominal->minus($this->measured));
    }
}
