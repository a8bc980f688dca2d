<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/**
 * Which findings have ever read a cell, shared by all that was tried from one inspection. It only grows: a finding may
 * read less today than it did, so whoever asks looks at what it reads now.
 */
final class ReadBy
{
    /** @var array<string, array<string, true>> cell → keys */
    private array $keys = [];

    /**
     * @param  array<string, true>  $cells
     */
    public function note(string $key, array $cells): void
    {
        foreach ($cells as $cell => $_) {
            $this->keys[$cell][$key] = true;
        }
    }

    /**
     * @param  array<string, true>  $cells
     * @return list<string> keys of findings that may have read any of them
     */
    public function any(array $cells): array
    {
        $any = [];
        foreach ($cells as $cell => $_) {
            $any += $this->keys[$cell] ?? [];
        }

        return array_map(strval(...), array_keys($any));
    }
}
