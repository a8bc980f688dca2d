<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

final readonly class Conductor
{
    /**
     * @param  Quantity|null  $size  cross-section of one conductor, in mm² or as a gauge
     * @param  Evidence|null  $evidence  what the size rests on
     * @param  Screening|null  $screen  whether it has a screen, and where that is bonded
     */
    public function __construct(
        public ?Quantity $size,
        public ?Evidence $evidence,
        public ?Stranding $stranding,
        public ?string $insulation,
        public int $parallel = 1,
        public ?Screening $screen = null,
    ) {
    }
}
