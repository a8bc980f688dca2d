<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** How good something is, roughly. */
enum Grade: string
{
    use Worded;

    case Poor = 'poor';
    case Fair = 'fair';
    case Good = 'good';
}
