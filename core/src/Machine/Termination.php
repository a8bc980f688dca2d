<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How the end of a lead is finished. */
enum Termination: string
{
    use Worded;

    case Ferrule = 'ferrule';
    case Fork = 'fork';
    case Ring = 'ring';
    case Crimp = 'crimp';
    case Blade = 'blade';
    case Soldered = 'soldered';
    case Bare = 'bare';
    case Tinned = 'tinned';
    case Moulded = 'moulded';
}
