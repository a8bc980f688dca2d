<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** A choice made before one could know: which way round, which of two. It opens again at the step that settles it. */
final readonly class Guess
{
    /**
     * @param  string|null  $settledBy  ref of the step that shows whether it was right
     * @param  string|null  $settled  what it turned out to be; null while nobody knows
     */
    public function __construct(
        public string $what,
        public ?string $settledBy = null,
        public ?string $settled = null,
    ) {
    }
}
