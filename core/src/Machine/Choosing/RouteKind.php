<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** A way to come by the machine. */
enum RouteKind: string
{
    use Worded;

    case ReadyBuilt = 'ready-built';
    case Kit = 'kit';
    case SelfSourced = 'self-sourced';
    case Mixed = 'mixed';
    case Conversion = 'conversion';
}
