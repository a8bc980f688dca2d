<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Buying;

/** One thing that was looked at when a purchase came, and what was found: good findings are kept as well. */
final readonly class Look
{
    /**
     * @param  string  $what  was looked at, as the check says: "grub screws"
     * @param  bool  $good  it passed
     * @param  int|null  $pieces  it was found on; null for all of them
     * @param  list<string>  $photos  names of its pictures
     */
    public function __construct(
        public string $what,
        public bool $good,
        public string $date,
        public ?int $pieces = null,
        public ?string $notes = null,
        public array $photos = [],
    ) {
    }
}
