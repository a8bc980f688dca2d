<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** Where a document is wrong, or the builder does otherwise: what it says, what is right, and why. */
final readonly class Correction
{
    /**
     * @param  string|null  $sent  day it was sent back to whoever wrote the document
     */
    public function __construct(
        public string $says,
        public string $right,
        public ?string $why = null,
        public ?string $step = null,
        public ?string $sent = null,
    ) {
    }
}
