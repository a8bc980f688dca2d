<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** What a line of a route is for. */
enum LineKind: string
{
    use Worded;

    case Box = 'box';
    case LeftOut = 'left out';
    case Tool = 'tool';
    case Consumable = 'consumable';
    case Spare = 'spare';
}
