<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** What the builder set, linked or left temporarily, as read back from the machine: a line of the settings audit. */
final readonly class Setting
{
    /** What a machine keeps to itself: whether it is set is noted, never what to. */
    private const SECRET = '/pass(word|phrase)|secret|token|credential|api.?key|(wi.?fi|wlan|network).*key/i';

    /**
     * @param  string  $about  what the audit asks for, such as "axis.x.steps_per_mm"; a name of one's own for a
     * temporary state
     * @param  string|null  $value  as it was read back from the machine
     * @param  string|null  $until  moment by which a temporary state must be gone
     * @param  string|null  $planned  what it is to be set to; the machine is as it was until it is read back
     * @param  string|null  $made  as it was set by hand, until it is read back
     * @param  bool  $done  ticked off, or undone again
     */
    public function __construct(
        public string $ref,
        public SettingKind $kind,
        public string $about,
        public ?string $value = null,
        public ?string $until = null,
        public bool $done = false,
        public ?string $notes = null,
        public ?string $planned = null,
        public ?string $made = null,
    ) {
    }

    public static function isSecret(string $about): bool
    {
        return preg_match(self::SECRET, $about) === 1;
    }
}
