<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What a revision is of. */
enum RevisionOf: string
{
    use Worded;

    case Machine = 'machine';
    case Kit = 'kit';
    case Part = 'part';
    case Document = 'document';
    case Firmware = 'firmware';
}
