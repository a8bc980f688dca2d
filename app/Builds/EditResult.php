<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Edit;

final readonly class EditResult
{
    /**
     * @param  list<array{section: string, ref: string, entry: array<string, mixed>|null}>  $entries
     * @param  string  $overview  JSON text
     */
    public function __construct(public Edit $edit, public int $revision, public array $entries, public string $overview)
    {
    }

    /** The answer as JSON text; the overview is passed through as it was stored. */
    public function json(): string
    {
        return '{"revision":'.$this->revision.',"label":'.Document::json($this->edit->label).',"entries":'.Document::json($this->entries).',"overview":'.$this->overview.'}';
    }
}
