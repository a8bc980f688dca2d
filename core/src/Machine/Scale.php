<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** How a need follows the machine's size: pieces along a length, or one piece cut to it. */
final readonly class Scale
{
    /**
     * @param  Quantity|null  $every  of a count: one piece each so far
     * @param  int  $plus  of a count: pieces that every size needs
     * @param  Quantity|null  $longer  of a length: how much longer (or shorter) than the travel it is cut
     */
    public function __construct(
        public Along $along,
        public ScaleKind $kind,
        public ?Quantity $every = null,
        public int $plus = 0,
        public ?Quantity $longer = null,
    ) {
    }
}
