<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** How far a fault has been dealt with. */
enum FaultState: string
{
    use Worded;

    case Open = 'open';
    case Understood = 'understood';
    case Fixed = 'fixed';
    case Closed = 'closed';
}
