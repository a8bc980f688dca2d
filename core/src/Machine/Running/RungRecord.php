<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

/** What a builder has noted at a rung of the power-up: looks that were ticked, and why it was passed all the same. */
final readonly class RungRecord
{
    /**
     * @param  string  $ref  of the rung: "dry", "supply-psu0"
     * @param  list<string>  $ticks  keys of the looks that were made, each on the part that stood there
     * @param  string|null  $override  why it was passed though something kept it
     * @param  list<string>  $over  what kept it then: the reason covers these, and nothing that comes later
     * @param  int|null  $at  seconds since 1970
     */
    public function __construct(
        public string $ref,
        public array $ticks = [],
        public ?string $override = null,
        public ?string $by = null,
        public ?int $at = null,
        public ?string $note = null,
        public array $over = [],
    ) {
    }
}
