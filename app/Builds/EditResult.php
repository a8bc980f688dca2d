<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Edit;

final readonly class EditResult
{
    /** When more entries changed, the whole build is better fetched again. */
    private const MOST = 300;

    /**
     * @param  list<array{section: string, ref: string, entry: array<int|string, mixed>|null}>  $entries
     * @param  list<array{section: string, ref: string, why: string}>  $left  what was not taken back, or not done again
     */
    public function __construct(
        public Edit $edit,
        public int $revision,
        public array $entries,
        public Judging $judging,
        public array $left = [],
    ) {
    }

    /** The answer as JSON text; what was judged is passed through as it was stored. */
    public function json(): string
    {
        $many = count($this->entries) > self::MOST;

        return '{"revision":'.
            $this->revision.
            ',"label":'.
            Document::json($this->edit->label).
            ',"whole":'.
            ($many ? 'true' : 'false').
            ',"entries":'.
            Document::json($many ? [] : $this->entries).
            ',"left":'.
            Document::json($this->left).
            ',"findings":'.
            Document::json($this->judging->findings).
            $this->judging->json().
            '}';
    }
}
