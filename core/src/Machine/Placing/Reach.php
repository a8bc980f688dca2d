<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Placing;

use Magpie\Core\Quantity\Quantity;

/** Room a hand, a key, a plug or an opening door wants before one side of a body. */
final readonly class Reach
{
    public function __construct(public Side $side, public Quantity $depth, public string $for)
    {
    }
}
