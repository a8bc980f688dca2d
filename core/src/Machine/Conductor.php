<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

final readonly class Conductor
{
    public const STRANDINGS = ['solid', 'stranded', 'fine'];

    /**
     * @param  Quantity|null  $size  cross-section of one conductor, in mm² or as a gauge
     * @param  Evidence|null  $evidence  what the size rests on
     */
    public function __construct(
        public ?Quantity $size,
        public ?Evidence $evidence,
        public ?string $stranding,
        public ?string $insulation,
        public int $parallel = 1,
    ) {
    }
}
