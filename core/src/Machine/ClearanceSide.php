<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Range;

/** One of two things that must not meet: where it is with every axis at nought. */
final readonly class ClearanceSide
{
    /**
     * @param  array{x: Range|null, y: Range|null, z: Range|null}  $box  a side that is not given is taken as anywhere
     * @param  list<string>  $moves  axes that carry it
     * @param  string|null  $round  direction about which it is round: its box holds a disc across that
     */
    public function __construct(
        public string $what,
        public array $box,
        public array $moves = [],
        public ?string $round = null,
    ) {
    }
}
