<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A dated state of the machine, its kit, a part or a document, and what it changes. */
final readonly class Revision
{
    public function __construct(
        public string $ref,
        public RevisionOf $of,
        public string $name,
        public string $revision,
        public string $date,
        public ?string $part = null,
        public RevisionState $state = RevisionState::InHand,
        public ?string $effect = null,
        public bool $governs = false,
    ) {
    }
}
