<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Placing;

use Magpie\Core\Machine\Worded;

/** How a body stands to another along one direction. Low is left, front and bottom. */
enum Anchor: string
{
    use Worded;

    /** Its low side so far in from the low side of the other. */
    case Low = 'low';
    /** The middles, and so far beyond. */
    case Centre = 'centre';
    /** Its high side so far in from the high side of the other. */
    case High = 'high';
    /** Right of it, behind it, above it, with so much between. */
    case After = 'after';
    /** Left of it, in front of it, below it, with so much between. */
    case Before = 'before';
}
