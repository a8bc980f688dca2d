<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What the builder set, linked or left temporarily, as read back from the machine: a line of the settings audit. */
final readonly class Setting
{
    public const KINDS = ['setting', 'link', 'temporary'];

    /**
     * @param  string  $about  what the audit asks for, such as "axis.x.steps_per_mm"; a name of one's own for a
     * temporary state
     * @param  string|null  $value  as it was read back from the machine
     * @param  string|null  $until  moment by which a temporary state must be gone
     * @param  string|null  $planned  what it is to be set to; the machine is as it was until it is read back
     * @param  bool  $done  ticked off, or undone again
     */
    public function __construct(
        public string $ref,
        public string $kind,
        public string $about,
        public ?string $value = null,
        public ?string $until = null,
        public bool $done = false,
        public ?string $notes = null,
        public ?string $planned = null,
    ) {
    }
}
