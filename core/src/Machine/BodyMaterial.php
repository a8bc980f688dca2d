<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What a turning body is made of. */
enum BodyMaterial: string
{
    use Worded;

    case Steel = 'steel';
    case Aluminium = 'aluminium';
    case Brass = 'brass';
    case Plastic = 'plastic';
}
