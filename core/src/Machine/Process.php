<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What the machine does. */
enum Process: string
{
    use Worded;

    case Printing = 'printing';
    case Cutting = 'cutting';
    case Plasma = 'plasma';
    case Drawing = 'drawing';
}
