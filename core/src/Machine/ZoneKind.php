<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How a place with an air of its own is closed. */
enum ZoneKind: string
{
    use Worded;

    case Cabinet = 'cabinet';
    case Chamber = 'chamber';
    case Enclosure = 'enclosure';
    case Open = 'open';
}
