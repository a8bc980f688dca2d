<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Reads;

/**
 * A build laid out for inspection: what several checks need is worked out once and kept here. It knows no trade; each
 * of them asks for what is its own.
 */
final class Survey
{
    /** @var array<string, object> by what it is */
    private array $made = [];

    /** @var array<string, array<string, true>> cells each of them was made from */
    private array $from = [];

    /**
     * @param  Reads|null  $reads  who is told what is read, of the build and of what is kept here
     */
    public function __construct(public readonly Build $build, public readonly ?Reads $reads = null)
    {
    }

    /**
     * @template T of object
     *
     * @param  class-string<T>  $what
     * @param  callable(self): T  $make  called the first time it is asked for
     * @return T
     */
    public function once(string $what, callable $make): object
    {
        if ($this->reads === null) {
            /** @var T */
            return $this->made[$what] ??= $make($this);
        }
        if (! isset($this->made[$what])) {
            [$this->made[$what], $this->from[$what]] = $this->reads->during(fn (): object => $make($this));
        }
        $this->reads->note("made/{$what}");

        /** @var T */
        return $this->made[$what];
    }

    /**
     * The survey of the build after an edit, with all that still stands. What no longer does is made when it is asked
     * for.
     *
     * @param  array<string, true>  $cells  cells of the build that have changed
     * @param  array<string, true>  $entries  entries in which anything has: what is kept here may hold them as they were
     * @return array{self, array<string, true>} and all cells that have changed, those of what is kept here among them
     */
    public function carriedTo(Build $build, array $cells, array $entries): array
    {
        $next = new self($build, $this->reads);
        // In the order they were made: what was made from another comes after it, and falls or stands with it.
        foreach ($this->made as $what => $made) {
            $from = $this->from[$what];
            if ($made instanceof Carried) {
                $carried = $made->carriedTo($next, $cells, array_intersect_key($from, $cells) === []);
                [$next->made[$what], $next->from[$what]] = [$carried->made, $carried->from ?? $from];
                $cells += array_fill_keys($carried->cells, true);
            } elseif (array_intersect_key($from, $made instanceof Settled ? $cells : $cells + $entries) === []) {
                [$next->made[$what], $next->from[$what]] = [$made, $from];
            } else {
                $cells["made/{$what}"] = true;
            }
        }

        return [$next, $cells];
    }
}
