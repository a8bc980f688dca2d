<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;

/** How an axis finds its place at switch-on. */
final readonly class Homing
{
    /**
     * @param  list<string>  $sensors  needs of the switches or sensors
     * @param  bool|null  $bothEnds  one moving sensor answers at either end
     * @param  Quantity|null  $configured  travel the settings allow
     */
    public function __construct(
        public ?HomingBy $by = null,
        public array $sensors = [],
        public ?bool $bothEnds = null,
        public ?Quantity $configured = null,
    ) {
    }
}
