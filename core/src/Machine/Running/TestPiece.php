<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

/** A reference piece that was made and measured. */
final readonly class TestPiece
{
    /**
     * @param  string  $piece  which reference piece
     * @param  int  $at  seconds since 1970
     * @param  string|null  $recipe  slice or tool path it was made by; only like is compared with like
     * @param  list<TestFeature>  $features
     */
    public function __construct(
        public string $ref,
        public string $piece,
        public int $at,
        public ?string $recipe = null,
        public ?string $material = null,
        public array $features = [],
        public ?string $changed = null,
        public ?string $by = null,
    ) {
    }

    /** Pieces with the same may be held against one another. */
    public function like(): string
    {
        return mb_strtolower("{$this->piece}|{$this->recipe}|{$this->material}");
    }
}
