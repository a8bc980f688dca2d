<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A finding a builder has looked at and lets stand, with the reason. It is void once what the finding rests on changes. */
final readonly class Acceptance
{
    /**
     * @param  string  $finding  its key: "E02/W4"
     * @param  string  $of  digest of what was accepted: its verdict, and what it rests on
     * @param  string|null  $until  day from which it is void
     */
    public function __construct(
        public string $ref,
        public string $finding,
        public string $why,
        public string $who,
        public string $of,
        public ?string $until = null,
    ) {
    }
}
