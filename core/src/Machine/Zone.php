<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** A place with an air of its own, and what stands in it. */
final readonly class Zone
{
    /**
     * @param  string|null  $box  need of the cabinet around it
     * @param  Quantity|null  $temperature  hottest its air gets
     * @param  list<string>  $holds  needs that stand in it
     */
    public function __construct(
        public string $ref,
        public string $name,
        public ZoneKind $kind,
        public ?string $box = null,
        public ?Quantity $temperature = null,
        public ?Evidence $evidence = null,
        public array $holds = [],
    ) {
    }
}
