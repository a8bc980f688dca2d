<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** One thing the machine must make. */
final readonly class Workpiece
{
    /**
     * @param  Quantity|null  $removed  volume printed or removed for one of them
     */
    public function __construct(
        public string $ref,
        public string $name,
        public ?Quantity $length = null,
        public ?Quantity $width = null,
        public ?Quantity $height = null,
        public ?string $material = null,
        public ?int $perWeek = null,
        public ?Quantity $removed = null,
    ) {
    }
}
