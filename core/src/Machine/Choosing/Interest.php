<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** What whoever says it has to gain. */
enum Interest: string
{
    use Worded;

    case OwnTest = 'own test';
    case AnotherBuilder = 'another builder';
    case GivenThePart = 'given the part';
    case Paid = 'paid';
    case Seller = 'seller';
    case Maker = 'maker';
}
