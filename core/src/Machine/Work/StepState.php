<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** Whether a step is done. */
enum StepState: string
{
    use Worded;

    case Open = 'open';
    case Done = 'done';
    case Skipped = 'skipped';
}
