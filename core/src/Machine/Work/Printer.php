<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Quantity\Quantity;

/** A printer of the workshop that prints parts of this machine; or the machine itself, once it runs. */
final readonly class Printer
{
    /**
     * @param  Quantity|null  $length  of what can be printed, along x; width along y, height along z
     * @param  list<string>  $plastics  it is known to print
     * @param  Quantity|null  $flow  plastic it lays down over a whole print, with its travels, in mm³/s
     * @param  Quantity|null  $daily  time a day it may run
     * @param  bool  $finished  it is the machine of this build: it prints nothing before it runs
     */
    public function __construct(
        public string $ref,
        public string $name,
        public ?Quantity $length = null,
        public ?Quantity $width = null,
        public ?Quantity $height = null,
        public array $plastics = [],
        public ?Quantity $flow = null,
        public ?Quantity $daily = null,
        public bool $finished = false,
        public ?string $notes = null,
    ) {
    }

    /** Whether a part of this size stands in it as its file has it, or turned on the plate; null where a size is missing. */
    public function holds(?Quantity $length, ?Quantity $width, ?Quantity $height): ?bool
    {
        if ($length === null || $width === null || $height === null) {
            return null;
        }
        if ($this->length === null || $this->width === null || $this->height === null) {
            return null;
        }
        $within = fn (Quantity $x, Quantity $y): bool => ! $x->exceeds($this->length ?? $x) &&
            ! $y->exceeds($this->width ?? $y);

        return ! $height->exceeds($this->height) && ($within($length, $width) || $within($width, $length));
    }
}
