<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

use Magpie\Core\Machine\Part;
use Magpie\Core\Quantity\Quantity;

/** A part of the workshop's library: its sheet, what it sells for and where, and what is known against it. */
final readonly class Entry
{
    /**
     * @param  bool  $example  invented, to start with; nothing to order by
     * @param  Quantity|null  $spares  share the workshop keeps on top of what it needs
     * @param  list<BookOffer>  $offers
     * @param  list<KnownFault>  $faults
     * @param  list<Pairing>  $pairings
     */
    public function __construct(
        public Part $part,
        public bool $example = false,
        public ?string $revision = null,
        public ?Quantity $spares = null,
        public array $offers = [],
        public array $faults = [],
        public array $pairings = [],
    ) {
    }

    /** Every word it may be found by, in small letters. */
    public function words(): string
    {
        $values = array_map(static fn ($s): string => $s->printed(), $this->part->specs);
        $all = implode(' ', [
            $this->part->name,
            $this->part->family->title(),
            $this->part->ref,
            $this->revision ?? '',
            $this->part->notes ?? '',
            ...array_values($values),
        ]);

        return mb_strtolower(trim((string) preg_replace('/[\s\x{a0}]+/u', ' ', $all)));
    }
}
