<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

use Magpie\Core\Quantity\Quantity;

/** What came off a printer at once: a batch of one part, or a fit piece before it. */
final readonly class PrintRun
{
    /**
     * @param  Quantity|null  $mass  of one piece of it, weighed
     * @param  Quantity|null  $time  the whole run took
     * @param  bool  $fit  a piece to try the fit of slots, inserts and seats on, not one to build with
     */
    public function __construct(
        public string $ref,
        public string $part,
        public ?string $printer,
        public string $date,
        public int $good = 0,
        public int $failed = 0,
        public ?Quantity $mass = null,
        public ?Quantity $time = null,
        public bool $fit = false,
        public ?string $notes = null,
    ) {
    }

    /** Pieces to build with that came of it. */
    public function made(): int
    {
        return $this->fit ? 0 : $this->good;
    }
}
