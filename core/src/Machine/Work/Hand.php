<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Machine\Worded;

/** Whose fault it is: of what was delivered, or of the hand that built. */
enum Hand: string
{
    use Worded;

    case Kit = 'kit';
    case Own = 'own';
}
