<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** Work that a route leaves to the builder. */
enum OwnWork: string
{
    use Worded;

    case Printing = 'printing';
    case Mechanics = 'mechanics';
    case Wiring = 'wiring';
    case Software = 'software';
    case Tuning = 'tuning';
}
