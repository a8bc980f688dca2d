<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** Whether a decision has been made. */
enum DecisionState: string
{
    use Worded;

    case Open = 'open';
    case Made = 'made';
}
