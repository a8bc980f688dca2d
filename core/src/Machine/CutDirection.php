<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** With the feed or against it. */
enum CutDirection: string
{
    use Worded;

    case Climb = 'climb';
    case Conventional = 'conventional';
    case Either = 'either';
}
