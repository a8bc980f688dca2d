<?php

declare(strict_types=1);

namespace Magpie\Core\Work;

use Magpie\Core\Inspection\Verdict;
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

    /** Within four fifths of the tolerance holds, within it is tight, outside fails, unmeasured is unproven. */
    public function verdict(): Verdict
    {
        if ($this->measured === null) {
            return Verdict::Unproven;
        }
        $off = $this->deviation();

        return match (true) {
            $off === null => Verdict::Unproven,
            $off->exceeds($this->tolerance) => Verdict::Fails,
            $off->exceeds($this->tolerance->times(0.8)) => Verdict::Tight,
            default => Verdict::Holds,
        };
    }

    /** How far the reading is from nominal, without sign. */
    public function deviation(): ?Quantity
    {
        return $this->measured === null
            ? null
            : Quantity::max($this->measured->minus($this->nominal), $this->nominal->minus($this->measured));
    }
}
