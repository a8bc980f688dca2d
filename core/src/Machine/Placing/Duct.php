<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Placing;

use Magpie\Core\Machine\Worded;

/** What may lie in a channel, along an edge or in a groove. */
enum Duct: string
{
    use Worded;

    case Any = 'any';
    case Mains = 'mains';
    case Signal = 'signal';
}
