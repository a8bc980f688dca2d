<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** What sort of fault it is. */
enum FaultKind: string
{
    use Worded;

    case Missing = 'missing';
    case Wrong = 'wrong';
    case Damaged = 'damaged';
    case Misfit = 'misfit';
    case OutOfTolerance = 'out_of_tolerance';
    case Undocumented = 'undocumented';
    case Electrical = 'electrical';
    case Settings = 'settings';
    case OwnMistake = 'own_mistake';
}
