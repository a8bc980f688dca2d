<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** A bag of small parts, and what should be in it. */
final readonly class Bag
{
    /**
     * @param  list<BagLine>  $holds
     * @param  list<string>  $for  steps it is meant for; any when empty
     */
    public function __construct(
        public string $ref,
        public string $label,
        public array $holds = [],
        public array $for = [],
        public ?string $notes = null,
    ) {
    }
}
