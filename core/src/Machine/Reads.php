<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/**
 * What has been read of a build while something was worked out, as the cells it stands in: "parts/M-57/rated_current",
 * "leads/W7", "site". A frame is opened before and closed after; what is read meanwhile is noted in the innermost one.
 * What is handed from one frame to another, such as a solved circuit, is a cell of its own.
 */
final class Reads
{
    /** A cell that counts as changed by every edit. */
    public const ALWAYS = 'always';

    /** @var array<string, true> of the innermost open frame */
    private array $frame = [];

    /** @var list<array<string, true>> those around it */
    private array $around = [];

    private bool $open = false;

    /**
     * Whether two sets of cells have any in common. The smaller is looked up in the larger.
     *
     * @param  array<string, true>  $some
     * @param  array<string, true>  $others
     */
    public static function meet(array $some, array $others): bool
    {
        if (count($some) > count($others)) {
            [$some, $others] = [$others, $some];
        }
        foreach ($some as $cell => $_) {
            if (isset($others[$cell])) {
                return true;
            }
        }

        return false;
    }

    public function note(string $cell): void
    {
        if ($this->open) {
            $this->frame[$cell] = true;
        }
    }

    /**
     * @param  array<string, true>  $cells
     */
    public function noteAll(array $cells): void
    {
        if ($this->open) {
            $this->frame += $cells;
        }
    }

    /**
     * Works something out in a frame of its own.
     *
     * @template T
     *
     * @param  callable(): T  $work
     * @return array{T, array<string, true>} what came out, and the cells it read
     */
    public function during(callable $work): array
    {
        $this->around[] = $this->frame;
        [$this->frame, $was] = [[], $this->open];
        $this->open = true;
        try {
            $result = $work();

            return [$result, $this->frame];
        } finally {
            $this->frame = array_pop($this->around) ?? [];
            $this->open = $was;
        }
    }
}
