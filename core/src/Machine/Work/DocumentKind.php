<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** What sort of document it is. */
enum DocumentKind: string
{
    use Worded;

    case Manual = 'manual';
    case Sheet = 'sheet';
    case Drawing = 'drawing';
    case Update = 'update';
    case Correction = 'correction';
    case Own = 'own';
}
