<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** So many pieces of a need that came in a bag. */
final readonly class BagLine
{
    /**
     * @param  int  $expected  pieces its label or the manual gives
     * @param  int|null  $found  pieces counted when it was opened; null when nobody counted
     * @param  int|null  $left  pieces counted in it now; null when nobody did
     * @param  string|null  $insteadOf  need whose pieces ran out and that these went in for
     */
    public function __construct(
        public string $need,
        public int $expected,
        public ?int $found = null,
        public ?int $left = null,
        public ?string $insteadOf = null,
    ) {
    }
}
