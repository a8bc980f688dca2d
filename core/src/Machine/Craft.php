<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What a builder may be practised in. */
enum Craft: string
{
    use Worded;

    case Fitting = 'fitting';
    case Crimping = 'crimping';
    case Soldering = 'soldering';
    case Mains = 'mains';
    case Printing = 'printing';
    case Software = 'software';
}
