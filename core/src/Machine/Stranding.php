<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How a conductor is made up. */
enum Stranding: string
{
    use Worded;

    case Solid = 'solid';
    case Stranded = 'stranded';
    case Fine = 'fine';
}
