<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

use Magpie\Core\Machine\Worded;

/** How far a purchase is, before and besides what has arrived of it. */
enum PurchaseState: string
{
    use Worded;

    case Considered = 'considered';
    case Ordered = 'ordered';
    case Shipped = 'shipped';
    /** Not wanted any more: what was paid for it and does not come back is lost. */
    case Abandoned = 'abandoned';
}
