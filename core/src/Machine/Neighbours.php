<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** Who hears the machine. */
enum Neighbours: string
{
    use Worded;

    case NobodyNear = 'nobody near';
    case PeopleInTheHouse = 'people in the house';
    case Neighbours = 'neighbours';
}
