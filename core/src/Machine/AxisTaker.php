<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** Something that takes travel away from an axis, by name. */
final readonly class AxisTaker
{
    public function __construct(public string $what, public Quantity $length, public ?Evidence $evidence = null)
    {
    }
}
