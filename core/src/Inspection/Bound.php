<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;

/** Which end of a toleranced value, or of a range, a check takes. */
enum Bound
{
    case Nominal;
    case Lowest;
    case Highest;
    /** The upper end of what it stands; a tolerance takes from a rating and never adds to it. */
    case MostStood;
    /** The lower end of what it works from; a tolerance raises it. */
    case LeastNeeded;

    /** That end of what a sheet says; null where it says no quantity. */
    public function of(Spec $spec): ?Quantity
    {
        return match ($this) {
            self::Nominal => $spec->nominal(),
            self::Lowest => $spec->lowest(),
            self::Highest => $spec->highest(),
            self::MostStood => $spec->mostStood(),
            self::LeastNeeded => $spec->leastNeeded(),
        };
    }
}
