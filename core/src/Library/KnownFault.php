<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

/** Something that is known to be wrong with a part, and what helps. */
final readonly class KnownFault
{
    public function __construct(
        public string $what,
        public string $severity,
        public int $reports = 1,
        public ?string $fix = null,
    ) {
    }
}
