<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** The units a builder reads in. */
enum UnitSystem: string
{
    use Worded;

    case Metric = 'metric';
    case Imperial = 'imperial';
}
