<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

/** Pieces of one part on one printer, one after another; or the fit piece before them. */
final readonly class PrintJob
{
    /**
     * @param  string|null  $part  null for a fit piece
     * @param  float  $grams  of all its pieces, off the reel
     * @param  float  $hours  of all its pieces, with changing the reel where it is changed
     * @param  float  $begins  days from today
     * @param  bool  $change  the reel is changed before it
     * @param  list<string>  $assumed  what is taken for granted
     */
    public function __construct(
        public ?string $part,
        public string $name,
        public string $printer,
        public int $pieces,
        public string $stuff,
        public float $grams,
        public float $hours,
        public float $begins,
        public float $ends,
        public bool $change,
        public array $assumed,
    ) {
    }

    /** What names it in the network of dates. */
    public function key(): string
    {
        return 'print/'.($this->part ?? "fit-{$this->stuff}")."/{$this->printer}";
    }
}
