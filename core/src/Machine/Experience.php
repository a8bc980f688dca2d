<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** How practised a builder is in a craft. */
enum Experience: string
{
    use Worded;

    case None = 'none';
    case Some = 'some';
    case Practised = 'practised';
}
