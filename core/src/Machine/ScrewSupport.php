<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How the two ends of a drive screw are held. */
enum ScrewSupport: string
{
    use Worded;

    case FixedFree = 'fixed-free';
    case Supported = 'supported';
    case FixedSupported = 'fixed-supported';
    case FixedFixed = 'fixed-fixed';
}
