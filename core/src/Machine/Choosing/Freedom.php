<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** How far a route lets one depart from it. */
enum Freedom: string
{
    use Worded;

    case None = 'none';
    case Some = 'some';
    case Full = 'full';
}
