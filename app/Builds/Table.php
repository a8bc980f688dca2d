<?php

declare(strict_types=1);

namespace App\Builds;

/** A table that holds entries of the build file, or a list within one. */
final readonly class Table
{
    /**
     * @param  list<Column>  $columns
     * @param  array<string, Inner>  $inner  path in the entry → table of that list
     * @param  list<string>  $ports  paths that name a port "need.port", kept in `{path}_need_id` and `{path}_port`
     */
    public function __construct(
        public string $name,
        public array $columns,
        public array $inner = [],
        public array $ports = [],
    ) {
    }

    /**
     * The same with other lists within it.
     *
     * @param  array<string, Inner>  $inner
     */
    public function with(array $inner): self
    {
        return new self($this->name, $this->columns, $inner, $this->ports);
    }
}
