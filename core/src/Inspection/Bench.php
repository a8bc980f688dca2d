<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Build;

/**
 * A build laid out for inspection: what several checks need is worked out once and kept here. It knows no trade; each
 * of them asks for what is its own.
 */
final class Bench
{
    /** @var array<string, object> by what it is */
    private array $made = [];

    public function __construct(public readonly Build $build)
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
        /** @var T */
        return $this->made[$what] ??= $make($this);
    }
}
