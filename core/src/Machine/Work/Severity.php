<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** How bad a fault is. */
enum Severity: string
{
    use Worded;

    case Danger = 'danger';
    case StopsWork = 'stops_work';
    case Defect = 'defect';
    case Blemish = 'blemish';
}
