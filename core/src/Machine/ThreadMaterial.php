<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What the thread is cut in. */
enum ThreadMaterial: string
{
    use Worded;

    case Steel = 'steel';
    case Brass = 'brass';
    case Cast = 'cast';
    case Aluminium = 'aluminium';
    case Plastic = 'plastic';
}
