<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** Something that says how the machine is built: a manual, a sheet, an update that came later. */
final readonly class Document
{
    /**
     * @param  string|null  $date  day it is of, YYYY-MM-DD
     * @param  string|null  $read  day it was read through; null while nobody has
     * @param  list<string>  $over  documents it prevails over where both speak of a step
     * @param  list<Passage>  $covers
     * @param  list<Statement>  $says
     * @param  list<Correction>  $corrections
     */
    public function __construct(
        public string $ref,
        public string $title,
        public DocumentKind $kind = DocumentKind::Manual,
        public ?string $version = null,
        public ?string $date = null,
        public ?string $read = null,
        public array $over = [],
        public array $covers = [],
        public array $says = [],
        public array $corrections = [],
        public ?string $notes = null,
    ) {
    }

    /** Corrections nobody has sent back yet. */
    public function unsent(): int
    {
        return count(array_filter($this->corrections, static fn (Correction $c): bool => $c->sent === null));
    }

    /** What it says of a step, where it is not passed over. */
    public function at(string $step): ?Passage
    {
        foreach ($this->covers as $passage) {
            if ($passage->step === $step && ! $passage->superseded) {
                return $passage;
            }
        }

        return null;
    }
}
