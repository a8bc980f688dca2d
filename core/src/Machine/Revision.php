<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A dated state of the machine, its kit, a part or a document, and what it changes. */
final readonly class Revision
{
    public const OF = ['machine', 'kit', 'part', 'document', 'firmware'];

    public const STATES = ['announced', 'ordered', 'in hand', 'superseded'];

    public function __construct(
        public string $ref,
        public string $of,
        public string $name,
        public string $revision,
        public string $date,
        public ?string $part = null,
        public string $state = 'in hand',
        public ?string $effect = null,
        public bool $governs = false,
    ) {
    }
}
