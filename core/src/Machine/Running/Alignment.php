<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

/** Readings of one alignment, as they were typed; what they come to is worked out. */
final readonly class Alignment
{
    /**
     * @param  string  $kind  which one: "corners", "diagonals", "tram" …
     * @param  array<string, string>  $given  by name, a figure with its unit or a row of them: "0.00 0.02 0.05 mm"
     * @param  int|null  $at  seconds since 1970
     * @param  string|null  $holder  what holds the instrument; a magnet does not hold on aluminium
     */
    public function __construct(
        public string $ref,
        public string $kind,
        public array $given,
        public ?string $axis = null,
        public ?string $instrument = null,
        public ?string $holder = null,
        public ?string $by = null,
        public ?int $at = null,
        public ?string $note = null,
    ) {
    }
}
