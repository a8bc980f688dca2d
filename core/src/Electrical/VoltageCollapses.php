<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use RuntimeException;

/** Loads that draw more as their voltage falls ask for more power than can arrive: there is no voltage at which they run. */
final class VoltageCollapses extends RuntimeException
{
    public function __construct(public readonly int $node)
    {
        parent::__construct("The voltage at {$node} collapses.");
    }
}
