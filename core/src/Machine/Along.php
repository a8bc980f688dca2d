<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A direction of the machine. */
enum Along: string
{
    use Worded;

    case X = 'x';
    case Y = 'y';
    case Z = 'z';
}
