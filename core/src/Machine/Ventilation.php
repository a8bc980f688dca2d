<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** Where its air goes. */
enum Ventilation: string
{
    use Worded;

    case None = 'none';
    case Window = 'window';
    case ExtractionOutside = 'extraction outside';
}
