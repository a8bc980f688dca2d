<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A mechanical interface between two needs, with the screws that hold it. */
final readonly class Mate
{
    /**
     * @param  array{string, string}  $between  need refs
     * @param  list<ScrewStack>  $screws
     */
    public function __construct(
        public string $ref,
        public string $kind,
        public array $between,
        public array $screws = [],
        public ?string $notes = null,
    ) {
    }
}
