<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Build;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Arr;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Throwable;

/**
 * Reads and writes entries of a build file as rows of the database, as Schema lays them out. Works inside the caller's
 * transaction.
 */
final class Store
{
    /** Values of one statement, at the most; the database takes 65,535. */
    private const VALUES = 20_000;

    /** @var array<string, array<string, int>> section → ref → id */
    private array $ids = [];

    /** @var list<array{Table, int, array<int|string, mixed>}> lists that name entries of their own collection, to be written yet */
    private array $later = [];

    public function __construct(private readonly Build $build)
    {
    }

    /**
     * The whole build, in the canonical form of the file; as the rows have it when it cannot be read.
     *
     * @return array<string, mixed>
     */
    public function document(): array
    {
        // Many tables, one moment: an edit that is stored meanwhile is in all of them or in none.
        $data = DB::transaction($this->rows(...));
        try {
            return BuildFile::data(BuildFile::build($data, kept: true));
        } catch (CannotReadBuildFile) {
            return $data;
        } catch (Throwable $e) {
            report($e);

            return $data;
        }
    }

    /**
     * @return array<string, mixed>
     */
    private function rows(): array
    {
        $data = ['magpie' => BuildFile::VERSION];
        foreach (Schema::headers() as $name => $columns) {
            $data[$name] = $this->headerRow($columns);
        }
        $refs = [];
        foreach (Schema::sections() as $section => $table) {
            /** @var array<int, string> $names */
            $names = DB::table($table->name)->where('build_id', $this->build->id)->pluck('ref', 'id')->all();
            $refs[$section] = $names;
        }
        foreach (Schema::sections() as $section => $table) {
            $rows = DB::table($table->name)->where('build_id', $this->build->id)->orderBy('id')->get();
            $entries = [];
            foreach ($rows as $row) {
                $entries[$row->id] = ['ref' => $row->ref] + $this->values($table, (array) $row, $refs);
            }
            $this->readInner(
                $table,
                $entries,
                DB::table($table->name)->select('id')->where('build_id', $this->build->id),
                $refs,
            );
            $data[$section] = array_values($entries);
        }

        return array_filter($data, static fn (mixed $v): bool => $v !== []);
    }

    /**
     * What it names of its own collection is written by settle(), once all of it is there.
     *
     * @param  array<int|string, mixed>  $fragment  in canonical form
     * @param  int|null  $id  row to bring back under its old number, so that its place in the file stays
     */
    public function insert(string $section, array $fragment, ?int $id = null): int
    {
        $table = Schema::sections()[$section];
        $row = $this->row($table, $fragment) + ['build_id' => $this->build->id, 'ref' => $fragment['ref']];
        if ($id !== null) {
            DB::table($table->name)->insert($row + ['id' => $id]);
        } else {
            $id = DB::table($table->name)->insertGetId($row);
        }
        $this->remember($section, $fragment, $id);
        $own = self::own($section, $table);
        $this->writeInner($table->with(array_diff_key($table->inner, $own)), [$id], [$fragment]);
        if ($own !== []) {
            $this->later[] = [$table->with($own), $id, $fragment];
        }

        return $id;
    }

    /**
     * @return array<string, Inner> the lists of an entry that name others of its collection
     */
    private static function own(string $section, Table $table): array
    {
        return array_filter(
            $table->inner,
            static fn (Inner $i): bool => array_filter(
                $i->table->columns,
                static fn (Column $c): bool => $c->of === $section,
            ) !== [],
        );
    }

    /** Writes what entries that were inserted name of their own collection: steps wait for each other in any order. */
    public function settle(): void
    {
        foreach ($this->later as [$table, $id, $fragment]) {
            $this->writeInner($table, [$id], [$fragment]);
        }
        $this->later = [];
    }

    /**
     * Many new entries at once, in few statements. They are settled like single ones.
     *
     * @param  list<array<int|string, mixed>>  $fragments  in canonical form
     * @param  list<int|null>|null  $ids  rows to bring them back under
     * @return list<int> their rows
     */
    public function insertMany(string $section, array $fragments, ?array $ids = null): array
    {
        if ($fragments === []) {
            return [];
        }
        $table = Schema::sections()[$section];
        $known = array_filter($ids ?? [], is_int(...));
        $ids = count($known) === count($fragments) ? array_values($known) : null;
        $rows = array_map(
            fn (array $f, ?int $id): array => ($id === null ? [] : ['id' => $id]) +
                $this->row($table, $f) + ['build_id' => $this->build->id, 'ref' => $f['ref']],
            $fragments,
            $ids ?? array_fill(0, count($fragments), null),
        );
        $numbers = $this->numbered($table->name, $rows);
        $ids ??= $numbers;
        $own = self::own($section, $table);
        foreach ($fragments as $i => $fragment) {
            $this->remember($section, $fragment, $ids[$i]);
            if ($own !== []) {
                $this->later[] = [$table->with($own), $ids[$i], $fragment];
            }
        }
        $this->writeInner($table->with(array_diff_key($table->inner, $own)), $ids, $fragments);

        return $ids;
    }

    /**
     * @param  array<int|string, mixed>  $fragment
     * @param  array<int|string, mixed>  $before  what is stored now, when it is known: lists that stay are left alone
     */
    public function update(string $section, string $ref, array $fragment, array $before = []): int
    {
        $this->settle();
        $table = Schema::sections()[$section];
        $id = $this->rowOf($section, $ref);
        DB::table($table->name)
            ->where('id', $id)
            ->update($this->row($table, $fragment) + ['ref' => $fragment['ref']]);
        $changed = array_filter(
            $table->inner,
            static fn (string $path): bool => Arr::get($fragment, $path, []) !== Arr::get($before, $path),
            ARRAY_FILTER_USE_KEY,
        );
        foreach ($changed as $inner) {
            DB::table($inner->table->name)->where('owner_id', $id)->delete();
        }
        $this->writeInner($table->with($changed), [$id], [$fragment]);

        return $id;
    }

    /**
     * @param  list<int>  $rows
     */
    public function deleteMany(string $section, array $rows): void
    {
        foreach (array_chunk($rows, 1000) as $chunk) {
            DB::table(Schema::sections()[$section]->name)
                ->whereIn('id', $chunk)
                ->delete();
        }
        unset($this->ids[$section]);
    }

    public function delete(string $section, string $ref): int
    {
        $id = $this->rowOf($section, $ref);
        DB::table(Schema::sections()[$section]->name)
            ->where('id', $id)
            ->delete();
        unset($this->ids[$section][$ref]);

        return $id;
    }

    /**
     * @param  array<int|string, mixed>  $header
     */
    public function writeHeader(string $name, array $header): void
    {
        $row = [];
        foreach (Schema::headers()[$name] as $column) {
            $row[$column->name] = $column->toRow(Arr::get($header, $column->path));
        }
        DB::table('builds')->where('id', $this->build->id)->update($row);
    }

    /**
     * @param  list<Column>  $columns
     * @return array<string, mixed>
     */
    private function headerRow(array $columns): array
    {
        $row = (array) DB::table('builds')->where('id', $this->build->id)->first();
        $header = [];
        foreach ($columns as $column) {
            if ($row[$column->name] !== null) {
                Arr::set($header, $column->path, $column->fromRow($row[$column->name]));
            }
        }

        return $header;
    }

    /**
     * @param  array<string, mixed>  $row
     * @param  array<string, array<int, string>>  $refs
     * @return array<string, mixed>
     */
    private function values(Table $table, array $row, array $refs): array
    {
        $entry = [];
        foreach ($table->ports as $port) {
            $entry[$port] = self::name($refs, 'needs', $row["{$port}_need_id"]).'.'.(string) $row["{$port}_port"];
        }
        foreach ($table->columns as $column) {
            $value = $row[$column->name];
            if ($value !== null) {
                Arr::set(
                    $entry,
                    $column->path,
                    $column->of === null ? $column->fromRow($value) : self::name($refs, $column->of, $value),
                );
            }
        }

        return $entry;
    }

    /**
     * @param  array<mixed>  $entries  by row id
     *
     * @param-out array<mixed>  $entries
     *
     * @param  array<string, array<int, string>>  $refs
     */
    private function readInner(Table $table, array &$entries, Builder $owners, array $refs): void
    {
        foreach ($table->inner as $path => $inner) {
            $own = DB::table($inner->table->name)->select('id')->whereIn('owner_id', clone $owners);
            $found = [];
            $rows = DB::table($inner->table->name)->whereIn('owner_id', clone $owners)->orderBy('id')->get();
            foreach ($rows as $row) {
                $row = (array) $row;
                $only = $inner->table->columns[0];
                $found[$row['id']] =
                    $only->path === ''
                        ? ($only->of === null
                            ? $only->fromRow($row[$only->name])
                            : self::name($refs, $only->of, $row[$only->name]))
                        : $this->values($inner->table, $row, $refs);
            }
            if ($inner->table->inner !== []) {
                $this->readInner($inner->table, $found, $own, $refs);
            }
            $lists = [];
            foreach ($rows as $row) {
                $row = (array) $row;
                $key = $inner->key;
                if ($key === null) {
                    $lists[$row['owner_id']][] = $found[$row['id']];
                } else {
                    $name =
                        $key->of === null ? (string) $row[$key->name] : self::name($refs, $key->of, $row[$key->name]);
                    $lists[$row['owner_id']][$name] = $found[$row['id']];
                }
            }
            foreach ($lists as $owner => $list) {
                /** @var array<string, mixed> $entry */
                $entry = $entries[$owner];
                Arr::set($entry, $path, $list);
                $entries[$owner] = $entry;
            }
        }
    }

    /**
     * @param  array<int|string, mixed>  $fragment
     * @return array<string, mixed>
     */
    private function row(Table $table, array $fragment): array
    {
        $row = [];
        foreach ($table->ports as $path) {
            [$need, $port] = explode('.', (string) $fragment[$path], 2);
            $row["{$path}_need_id"] = $this->rowOf('needs', $need);
            $row["{$path}_port"] = $port;
        }
        foreach ($table->columns as $column) {
            $value = Arr::get($fragment, $column->path);
            $row[$column->name] =
                $column->of !== null && $value !== null
                    ? $this->rowOf($column->of, (string) $value)
                    : $column->toRow($value);
        }

        return $row;
    }

    /**
     * The lists within entries, and the lists within those, each table in few statements.
     *
     * @param  list<int>  $owners  rows of the entries
     * @param  list<array<int|string, mixed>>  $fragments  the entries, in the same order
     */
    private function writeInner(Table $table, array $owners, array $fragments): void
    {
        foreach ($table->inner as $path => $inner) {
            $rows = $items = [];
            foreach ($owners as $i => $owner) {
                $held = self::items($fragments[$i], $path);
                array_push($rows, ...$this->innerRows($inner, $owner, $held));
                array_push($items, ...array_values($held));
            }
            if ($rows !== []) {
                $ids = $this->numbered($inner->table->name, $rows);
                $this->writeInner($inner->table, $ids, array_map(static fn (mixed $i): array => (array) $i, $items));
            }
        }
    }

    /**
     * Inserts rows in few statements.
     *
     * @param  list<array<string, mixed>>  $rows  of the same columns
     * @return list<int> their numbers, where the database gives them: those of one statement have no gaps (innodb_autoinc_lock_mode 1), from the one reported
     */
    private function numbered(string $table, array $rows): array
    {
        $numbers = [];
        foreach (array_chunk($rows, max(1, intdiv(self::VALUES, count($rows[0])))) as $chunk) {
            DB::table($table)->insert($chunk);
            $first = (int) DB::getPdo()->lastInsertId();
            array_push($numbers, ...range($first, $first + count($chunk) - 1));
        }

        return $numbers;
    }

    /**
     * @param  array<int|string, mixed>  $items
     * @return list<array<string, mixed>>
     */
    private function innerRows(Inner $inner, int $owner, array $items): array
    {
        $rows = [];
        $only = $inner->table->columns[0];
        foreach ($items as $key => $item) {
            $row =
                ['owner_id' => $owner] +
                ($only->path === ''
                    ? [$only->name => $only->of === null ? $item : $this->rowOf($only->of, (string) $item)]
                    : $this->row($inner->table, (array) $item));
            if ($inner->key !== null) {
                $row[$inner->key->name] =
                    $inner->key->of === null ? $key : $this->rowOf($inner->key->of, (string) $key);
            }
            $rows[] = $row;
        }

        return $rows;
    }

    /**
     * @param  array<int|string, mixed>  $fragment
     * @return array<int|string, mixed> the list that stands at a path in it
     */
    private static function items(array $fragment, string $path): array
    {
        return (array) Arr::get($fragment, $path, []);
    }

    /**
     * @param  array<string, array<int, string>>  $refs
     */
    private static function name(array $refs, string $section, mixed $id): string
    {
        return $refs[$section][(int) $id];
    }

    /**
     * @param  array<int|string, mixed>  $fragment
     */
    private function remember(string $section, array $fragment, int $id): void
    {
        $this->ids[$section][(string) $fragment['ref']] = $id;
    }

    public function rowOf(string $section, string $ref): int
    {
        return $this->ids[$section][$ref] ??= (int) DB::table(Schema::sections()[$section]->name)
            ->where('build_id', $this->build->id)
            ->where('ref', $ref)
            ->value('id');
    }
}
