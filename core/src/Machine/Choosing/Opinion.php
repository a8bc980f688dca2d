<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

/** What somebody said, and what they have to gain by it. */
final readonly class Opinion
{
    public const INTERESTS = ['own test', 'another builder', 'given the part', 'paid', 'seller', 'maker'];

    public function __construct(
        public string $about,
        public string $says,
        public string $interest,
        public ?string $who = null,
        public ?string $date = null,
        public int $reports = 1,
    ) {
    }
}
