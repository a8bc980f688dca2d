<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

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
}
