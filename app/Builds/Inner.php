<?php

declare(strict_types=1);

namespace App\Builds;

/** A list within an entry: of objects, of bare values, or a map whose keys have a column of their own. */
final readonly class Inner
{
    private function __construct(public string $shape, public Table $table, public ?Column $key = null)
    {
    }

    public static function objects(Table $table): self
    {
        return new self('objects', $table);
    }

    /** Its table's one column holds the values. */
    public static function values(Table $table): self
    {
        return new self('values', $table);
    }

    /** Key → object; or key → value, when the table's one column has no path. */
    public static function map(Column $key, Table $table): self
    {
        return new self('map', $table, $key);
    }
}
