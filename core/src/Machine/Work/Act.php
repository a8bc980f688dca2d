<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** An act that cannot be taken back. */
enum Act: string
{
    use Worded;

    case Cut = 'cut';
    case Drill = 'drill';
    case Trim = 'trim';
    case Grind = 'grind';
    case Glue = 'glue';
}
