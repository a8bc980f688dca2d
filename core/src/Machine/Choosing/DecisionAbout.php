<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Machine\Worded;

/** What a decision is about. */
enum DecisionAbout: string
{
    use Worded;

    case Part = 'part';
    case Route = 'route';
    case School = 'school';
    case Other = 'other';
}
