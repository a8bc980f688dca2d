<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Magpie\Core\Machine\Doubt;
use Magpie\Core\Machine\Part;

/** What was understood of one line, and what was not. */
final readonly class ReadRow
{
    /**
     * @param  Part|null  $part  null when the line cannot be taken
     * @param  array{role: string, quantity: int, spares: string|null, owned: int, ref: string|null}|null  $need
     * @param  array{price: string, currency: string, supplier: string, pack: int}|null  $offer
     * @param  list<array{column: int|null, reason: string}>  $problems  cells that were left out, or why the line was
     * @param  list<Doubt>  $doubts
     * @param  string|null  $library  the entry of the workshop's library that filled in what the line leaves out
     * @param  bool  $sure  whether its kind was said, or nothing in its name speaks for another
     */
    public function __construct(
        public int $line,
        public ?Part $part,
        public ?array $need,
        public ?array $offer,
        public array $problems,
        public array $doubts,
        public bool $sure = true,
        public ?string $library = null,
    ) {
    }

    /** good, guessed (its kind), doubted (an unlikely size), partly (some cells left out) or refused. */
    public function state(): string
    {
        return match (true) {
            $this->part === null => 'refused',
            $this->problems !== [] => 'partly',
            $this->doubts !== [] => 'doubted',
            ! $this->sure => 'guessed',
            default => 'good',
        };
    }
}
