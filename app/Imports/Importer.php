<?php

declare(strict_types=1);

namespace App\Imports;

use App\Builds\Document;
use App\Builds\Store;
use App\Models\Build;
use App\Models\Import;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Sections\Needs;
use Magpie\Core\Format\Sections\Offers;
use Magpie\Core\Format\Sections\Parts;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Buying\Supplier;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Part;
use Magpie\Core\PartsList\Mapping;
use Magpie\Core\PartsList\ReadRow;
use Magpie\Core\PartsList\RowReader;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * Stores a confirmed parts list: line by line, in one transaction, as one edit that can be undone. All of it or none.
 */
final class Importer
{
    private const BATCH = 400;

    /** Entries up to which the build is read whole before the list is stored for good. */
    private const READ_WHOLE = 6_000;

    /** @var array<string, true> short names in use, parts and needs alike */
    private array $taken = [];

    /** @var array<string, string> supplier name and currency → ref */
    private array $suppliers = [];

    /** @var array<string, Supplier> by ref: in whose currency an offer is read */
    private array $priced = [];

    private int $stored = 0;

    private int $skipped = 0;

    private int $editId = 0;

    private readonly Store $store;

    public function __construct(
        private readonly Import $import,
        private readonly string $path,
        private readonly string $today,
    ) {
        $this->store = new Store($import->build()->firstOrFail());
    }

    public static function progressKey(Import $import): string
    {
        return "import:{$import->key}";
    }

    public static function cancelKey(Import $import): string
    {
        return "import:{$import->key}:cancel";
    }

    /** True when it was stored, false when the builder stopped it: then nothing was. */
    public function run(): bool
    {
        $build = $this->import->build()->firstOrFail();
        try {
            $this->report(0);
            DB::transaction(function () use ($build): void {
                $revision = 1 + (int) DB::table('builds')->where('id', $build->id)->lockForUpdate()->value('revision');
                foreach (['parts', 'needs', 'offers', 'suppliers'] as $table) {
                    foreach (DB::table($table)->where('build_id', $build->id)->pluck('ref') as $ref) {
                        $this->taken[(string) $ref] = true;
                    }
                }
                foreach (
                    DB::table('suppliers')
                        ->where('build_id', $build->id)
                        ->get(['ref', 'name', 'currency']) as $supplier
                ) {
                    $this->suppliers["{$supplier->name}|{$supplier->currency}"] = $supplier->ref;
                    $this->priced[$supplier->ref] = new Supplier($supplier->ref, $supplier->name, $supplier->currency);
                }
                $this->editId = DB::table('edits')->insertGetId([
                    'build_id' => $build->id,
                    'user_id' => $this->import->user_id,
                    'revision' => $revision,
                    'key' => (string) Str::uuid(),
                    'label' => "Import {$this->import->file_name}",
                    'state' => 'done',
                    'made_at' => now(),
                ]);
                $this->lines($build->currency);
                $this->holdTogether($build);
                DB::table('builds')
                    ->where('id', $build->id)
                    ->update(['revision' => $revision, 'updated_at' => now()]);
                $this->import->update(['state' => 'done', 'stored' => $this->stored, 'skipped' => $this->skipped]);
            });
        } catch (ImportCancelled) {
            $this->import->update(['state' => 'cancelled', 'stored' => 0]);

            return false;
        } catch (CannotImport $e) {
            $this->import->update(['state' => 'previewed', 'stored' => 0]);

            throw $e;
        } finally {
            Cache::forget(self::progressKey($this->import));
            Cache::forget(self::cancelKey($this->import));
        }

        return true;
    }

    /**
     * A build of usual size is read whole as it now is: what would not be readable afterwards is not stored. In a very
     * large one each entry was read on its own and points at nothing but its own line.
     *
     * @throws CannotImport
     */
    private function holdTogether(Build $build): void
    {
        $entries = 0;
        foreach (['needs', 'parts', 'offers'] as $table) {
            $entries += $held = DB::table($table)->where('build_id', $build->id)->count();
            if ($held > BuildFile::MOST) {
                throw CannotImport::because(
                    'With this list the build would have more than '.number_format(BuildFile::MOST)." {$table}.",
                );
            }
        }
        if ($entries > self::READ_WHOLE) {
            return;
        }
        $before = Document::of($build)->trouble();
        $after = Document::from((new Store($build))->document())->trouble();
        if ($before === null && $after !== null) {
            throw CannotImport::because(
                "The build could not be read with it ({$after['pointer']}: {$after['reason']}).",
            );
        }
    }

    private function lines(string $currency): void
    {
        $mapping = Mapping::fromArray($this->import->mapping ?? [], $currency);
        $shelf = new Shelf($this->import->build()->firstOrFail());
        $reader = new RowReader($mapping, Catalogue::standard(), $shelf->named(...));
        $batch = [];
        $seen = 0;
        foreach ((new CsvFile($this->path))->rows($mapping->header) as $number => $cells) {
            $row = $reader->read($number, $cells);
            $seen++;
            if ($row->part === null) {
                $this->skipped++;
            } else {
                $batch[] = $row;
            }
            if (count($batch) === self::BATCH) {
                $this->flush($batch);
                $batch = [];
                $this->report($seen);
            }
        }
        $this->flush($batch);
    }

    /** @throws ImportCancelled */
    private function report(int $seen): void
    {
        if (Cache::get(self::cancelKey($this->import)) === true) {
            throw new ImportCancelled;
        }
        Cache::put(
            self::progressKey($this->import),
            ['seen' => $seen, 'of' => $this->import->rows, 'at' => time()],
            600,
        );
    }

    /**
     * @param  list<ReadRow>  $rows
     */
    private function flush(array $rows): void
    {
        if ($rows === []) {
            return;
        }
        $parts = $needs = $offers = [];
        foreach ($rows as $row) {
            $read = $row->part;
            $line = $row->need;
            if ($read === null || $line === null) {
                continue;
            }
            $ref = $this->free($line['ref'] ?? $read->ref);
            $part = new Part(
                $ref,
                $read->family,
                $read->name,
                $read->specs,
                $read->ownPorts,
                $read->notes,
                $read->library,
            );
            $spares = $line['spares'] === null ? null : Quantity::parse($line['spares'], Dimension::Ratio);
            $need = new Need(
                $ref,
                $line['role'],
                $read->family->key(),
                $line['quantity'],
                [$ref],
                $ref,
                null,
                $spares,
                $line['owned'],
            );
            $written = ['parts' => (new Parts)->write($part), 'needs' => (new Needs)->write($need)];
            if ($row->offer !== null) {
                $supplier = $this->supplier($row->offer['supplier'], $row->offer['currency']);
                $offer = new Offer(
                    $this->free("O-{$ref}"),
                    $ref,
                    $supplier,
                    Money::of($row->offer['price'], $row->offer['currency']),
                    $row->offer['pack'],
                    $this->today,
                );
                $written['offers'] = (new Offers)->write($offer);
            }
            if (! $this->readsBack($written)) {
                $this->skipped++;

                continue;
            }
            $parts[] = $written['parts'];
            $needs[] = $written['needs'];
            if (isset($written['offers'])) {
                $offers[] = $written['offers'];
            }
        }
        foreach (['parts' => $parts, 'needs' => $needs, 'offers' => $offers] as $section => $entries) {
            $this->record($section, $entries, $this->store->insertMany($section, $entries));
        }
        $this->stored += count($parts);
    }

    /**
     * Whether each entry of a line can be read again under the name it has got.
     *
     * @param  array<string, array<string, mixed>>  $written  by section
     */
    private function readsBack(array $written): bool
    {
        try {
            foreach ($written as $section => $entry) {
                BuildFile::sections()[$section]->read(
                    new Node($entry),
                    new Context(Catalogue::standard(), '', $this->priced),
                );
            }
        } catch (CannotReadBuildFile) {
            return false;
        }

        return true;
    }

    private function supplier(string $name, string $currency): string
    {
        $known = "{$name}|{$currency}";
        if (! isset($this->suppliers[$known])) {
            $ref = $this->free(RowReader::ref(mb_strtolower($name)));
            $entry = ['ref' => $ref, 'name' => $name, 'currency' => $currency];
            $this->priced[$ref] = new Supplier($ref, $name, $currency);
            $this->record('suppliers', [$entry], $this->store->insertMany('suppliers', [$entry]));
            $this->suppliers[$known] = $ref;
        }

        return $this->suppliers[$known];
    }

    /**
     * @param  list<array<string, mixed>>  $entries
     * @param  list<int>  $ids
     */
    private function record(string $section, array $entries, array $ids): void
    {
        DB::table('changes')->insert(
            array_map(
                fn (array $entry, int $id): array => [
                    'edit_id' => $this->editId,
                    'section' => $section,
                    'ref' => $entry['ref'],
                    'row' => $id,
                    'before' => null,
                    'after' => Document::json($entry),
                ],
                $entries,
                $ids,
            ),
        );
    }

    private function free(string $ref): string
    {
        $free = $ref;
        for ($i = 2; isset($this->taken[$free]); $i++) {
            $free = rtrim(substr($ref, 0, 56), '-_')."-{$i}";
        }
        $this->taken[$free] = true;

        return $free;
    }
}
