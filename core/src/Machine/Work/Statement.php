<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** A count or length a document states, which may have been written for another size of the machine. */
final readonly class Statement
{
    /**
     * @param  string  $says  as it stands there: "14", "1230 mm"
     * @param  string|null  $need  of what
     */
    public function __construct(
        public string $what,
        public string $says,
        public ?string $need = null,
        public ?string $step = null,
    ) {
    }
}
