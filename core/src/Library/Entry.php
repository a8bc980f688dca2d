<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\SpecField;
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
            ...$this->part->family->words(),
            $this->part->ref,
            $this->revision ?? '',
            $this->part->notes ?? '',
            ...array_values($values),
        ]);

        return mb_strtolower(trim((string) preg_replace('/[\s\x{a0}]+/u', ' ', $all)));
    }

    /** What it was offered for last. */
    public function latestOffer(): ?BookOffer
    {
        $offers = $this->offers;
        usort($offers, static fn (BookOffer $a, BookOffer $b): int => strcmp($b->date, $a->date));

        return $offers[0] ?? null;
    }

    /**
     * @return list<Figure> what a search by figures finds it by
     */
    public function figures(): array
    {
        return array_values(array_filter(array_map(Figure::of(...), array_values($this->part->specs))));
    }

    /**
     * What tells it from others of its kind, each line with its name: "holding torque 1.9 N m", "rated current 2.8 A". What
     * the kind is compared by comes first, then the sheet in its order; outer sizes last.
     *
     * @return list<string>
     */
    public function telling(): array
    {
        $told = [];
        foreach ($this->part->family->sheet() as $at => $field) {
            $spec = $this->part->specs[$field->key] ?? null;
            if ($spec !== null && $spec->flag() === null) {
                $told[] = [
                    match (true) {
                        str_starts_with($field->key, 'body_') || $field->key === 'mass' => 2,
                        $field->better !== null => 0,
                        default => 1,
                    },
                    $at,
                    self::called($field)." {$spec->printed()}",
                ];
            }
        }
        sort($told);

        return array_column($told, 2);
    }

    /** What a line of the sheet is called within a sentence; what stands after a comma there explains it. */
    private static function called(SpecField $field): string
    {
        $label = explode(',', $field->label)[0];

        return preg_match('/^\p{Lu}\p{Ll}/u', $label) === 1 ? lcfirst($label) : $label;
    }
}
