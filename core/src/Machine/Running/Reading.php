<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** One thing measured on the machine: what, where, how much, with what, by whom and when. */
final readonly class Reading
{
    /**
     * @param  string|null  $need  the part it was taken on
     * @param  string|null  $port  terminal of it: "out", "phases"
     * @param  string|null  $scenario  what ran meanwhile; some are made up, such as everything on at once
     * @param  string|null  $part  which part stood there; on another one it says nothing
     * @param  Quantity|null  $accuracy  of the instrument, either way
     * @param  int|null  $at  seconds since 1970
     * @param  bool  $simulated  by a stand-in for an instrument
     * @param  string|null  $struck  why it does not count; it stays
     */
    public function __construct(
        public string $ref,
        public Measured $what,
        public Quantity $value,
        public ?string $need = null,
        public ?string $axis = null,
        public ?string $port = null,
        public ?string $scenario = null,
        public ?string $part = null,
        public ?Quantity $accuracy = null,
        public ?string $instrument = null,
        public ?string $by = null,
        public ?int $at = null,
        public ?string $photo = null,
        public ?string $note = null,
        public bool $simulated = false,
        public ?string $struck = null,
    ) {
    }

    /** What it is a reading of: two with the same are of the same thing, and the later one counts. */
    public function of(): string
    {
        return self::key($this->what, $this->need ?? $this->axis, $this->port, $this->scenario);
    }

    public static function key(Measured $what, ?string $where, ?string $port = null, ?string $scenario = null): string
    {
        return implode(
            '/',
            array_filter([$what->value, $where, $port, $scenario], static fn (?string $one): bool => $one !== null),
        );
    }

    /** Off by the accuracy of the instrument, either way; where nobody said, by 2 % (common practice, no source). */
    public function doubt(): Quantity
    {
        return $this->accuracy ??
            ($this->value->unit->measures(Dimension::Temperature)
                ? Quantity::of(2, 'K')
                : Quantity::of(abs($this->value->in($this->value->unit->symbol)) * 0.02, $this->value->unit->symbol));
    }
}
