<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

/** What somebody said, and what they have to gain by it. */
final readonly class Opinion
{
    public function __construct(
        public string $about,
        public string $says,
        public Interest $interest,
        public ?string $who = null,
        public ?string $date = null,
        public int $reports = 1,
    ) {
    }
}
