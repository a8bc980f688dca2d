<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/** Which end of a toleranced value a check takes. */
enum Bound
{
    case Nominal;
    case Lowest;
    case Highest;
}
