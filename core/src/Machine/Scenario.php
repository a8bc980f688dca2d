<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** What runs at what share of its rating: idle, heat-up, printing, cutting, worst case. */
final readonly class Scenario
{
    /**
     * @param  array<string, Quantity>  $loads  need ref → share of its rating
     * @param  Quantity|null  $duration  how long one run lasts
     * @param  Quantity|null  $measured  power read at the wall while it ran
     */
    public function __construct(
        public string $ref,
        public string $name,
        public array $loads,
        public ?Quantity $duration = null,
        public ?int $runsPerYear = null,
        public ?Quantity $measured = null,
    ) {
    }

    public function share(Fitted $fitted): Quantity
    {
        return $this->loads[$fitted->need->ref] ?? Quantity::ratio($fitted->part->family->alwaysOn() ? 1 : 0);
    }
}
