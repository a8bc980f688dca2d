<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What tells an axis that it is home. */
enum HomingBy: string
{
    use Worded;

    case Switch = 'switch';
    case Sensorless = 'sensorless';
    case Probe = 'probe';
    case None = 'none';
}
