<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** How a fault was found. */
enum FoundBy: string
{
    use Worded;

    case Looking = 'looking';
    case Measuring = 'measuring';
    case Fitting = 'fitting';
    case Testing = 'testing';
    case Running = 'running';
}
