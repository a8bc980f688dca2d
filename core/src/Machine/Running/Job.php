<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

use Magpie\Core\Quantity\Quantity;

/** One job the machine has done, for its hours. */
final readonly class Job
{
    /**
     * @param  int  $at  seconds since 1970
     * @param  Quantity  $time  it ran
     * @param  list<string>  $axes  that moved; all where none is named
     * @param  Quantity|null  $spindle  time the spindle or torch was on
     * @param  Quantity|null  $heat  time the heaters were on
     */
    public function __construct(
        public string $ref,
        public string $name,
        public int $at,
        public Quantity $time,
        public array $axes = [],
        public ?Quantity $spindle = null,
        public ?Quantity $heat = null,
        public ?string $material = null,
        public ?string $note = null,
    ) {
    }
}
