<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Machine\Worded;

/** How far a claim on a supplier is. */
enum Claim: string
{
    use Worded;

    case Open = 'open';
    case Sent = 'sent';
    case Settled = 'settled';
    case Refused = 'refused';
}
