<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/**
 * A screw and all it passes through, from under the head to what it holds in.
 */
final readonly class ScrewStack
{
    /**
     * @param  string|null  $screw  need ref of the screw
     * @param  list<Quantity>  $clamped  thicknesses between head and thread
     * @param  list<Quantity>  $washers
     * @param  ThreadMaterial|null  $material  what the thread is in
     * @param  Quantity|null  $depth  usable thread depth before the screw bottoms
     * @param  Quantity|null  $room  free space behind a nut before something moves there
     */
    public function __construct(
        public ?string $screw,
        public int $count,
        public array $clamped,
        public array $washers,
        public ?ThreadIn $into,
        public ?ThreadMaterial $material = null,
        public ?Quantity $depth = null,
        public ?Quantity $room = null,
        public ?Evidence $evidence = null,
    ) {
    }
}
