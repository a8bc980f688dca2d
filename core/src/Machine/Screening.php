<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** Where the screen of a lead is earthed. */
enum Screening: string
{
    use Worded;

    case None = 'none';
    case OneEnd = 'one end';
    case BothEnds = 'both ends';
}
