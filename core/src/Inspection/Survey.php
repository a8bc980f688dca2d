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
     * @param  list<array<string, true>>|null  $only  cells that were read: what no such read rests on is left behind;
     *     null to carry all
     * @return array{self, array<string, true>} and all cells that have changed, those of what is kept here among them
     */
    public function carriedTo(Build $build, array $cells, array $entries, ?array $only = null): array
    {
        $next = new self($build, $this->reads);

        return [$next, $this->carry($next, $only === null ? $this->made : $this->under($only), $cells, $entries)];
    }

    /**
     * Carries over what carriedTo() was told to leave.
     *
     * @param  list<array<string, true>>  $only  what it was told
     * @param  array<string, true>  $cells  as it gave them
     * @param  array<string, true>  $entries
     * @return array<string, true>
     */
    public function carryRest(self $next, array $only, array $cells, array $entries): array
    {
        return $this->carry($next, array_diff_key($this->made, $this->under($only)), $cells, $entries);
    }

    /**
     * @param  array<string, object>  $kept  in the order they were made: what was made from another comes after it, and
     *     falls or stands with it
     * @param  array<string, true>  $cells
     * @param  array<string, true>  $entries
     * @return array<string, true> all cells that have changed
     */
    private function carry(self $next, array $kept, array $cells, array $entries): array
    {
        foreach ($kept as $what => $made) {
            $from = $this->from[$what];
            if ($made instanceof Carried) {
                $carried = $made->carriedTo($next, $cells, ! Reads::meet($from, $cells));
                [$next->made[$what], $next->from[$what]] = [$carried->made, $carried->from ?? $from];
                $cells += array_fill_keys($carried->cells, true);
            } elseif (! Reads::meet($from, $cells) && ($made instanceof Settled || ! Reads::meet($from, $entries))) {
                [$next->made[$what], $next->from[$what]] = [$made, $from];
            } else {
                unset($next->made[$what]);
                $cells["made/{$what}"] = true;
            }
        }

        return $cells;
    }

    /**
     * What some reads rest on: the cells of the build too that what is kept here was made from.
     *
     * @param  array<string, true>  $cells
     * @return array<string, true>
     */
    public function ground(array $cells): array
    {
        foreach (array_keys($this->under([$cells])) as $what) {
            $cells += $this->from[$what];
        }

        return $cells;
    }

    /**
     * What is kept here that something rests on, if only through others.
     *
     * @param  list<array<string, true>>  $reads  cells it read
     * @return array<string, object> in the order they were made
     */
    private function under(array $reads): array
    {
        $under = [];
        foreach (array_reverse($this->made, true) as $what => $made) {
            foreach ($reads as $cells) {
                if (isset($cells["made/{$what}"])) {
                    $under[$what] = $made;
                    $reads[] = $this->from[$what];
                    break;
                }
            }
        }

        return array_reverse($under, true);
    }
}
