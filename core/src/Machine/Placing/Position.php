<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Placing;

use Magpie\Core\Quantity\Quantity;

/** Where a body is along one direction. */
final readonly class Position
{
    /**
     * @param  string|null  $of  place it is told from; what it stands on when null, or the outline of the machine
     * @param  Quantity|null  $by  how far; nought when null
     */
    public function __construct(public Anchor $at, public ?string $of = null, public ?Quantity $by = null)
    {
    }
}
