<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

/** One round of upkeep: what was looked after, and what was found. */
final readonly class UpkeepRound
{
    /**
     * @param  string  $task  key of what is due by hours
     * @param  int  $at  seconds since 1970
     * @param  bool  $trouble  something was found that needs more
     */
    public function __construct(
        public string $ref,
        public string $task,
        public int $at,
        public ?string $found = null,
        public bool $trouble = false,
        public ?string $by = null,
    ) {
    }
}
