<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What of a part grows with an axis. */
enum ScaleKind: string
{
    use Worded;

    case Count = 'count';
    case Length = 'length';
}
