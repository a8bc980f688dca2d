<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What a part is in the machine for. */
enum Purpose: string
{
    use Worded;

    case Core = 'core';
    case Safety = 'safety';
    case Quality = 'quality';
    case Convenience = 'convenience';
    case Backup = 'backup';
}
