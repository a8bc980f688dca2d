<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Imports\CannotImport;
use App\Imports\CsvFile;
use App\Imports\Importer;
use App\Imports\Shelf;
use App\Imports\StoreList;
use App\Models\Build;
use App\Models\Import;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\Doubt;
use Magpie\Core\PartsList\Mapping;
use Magpie\Core\PartsList\ReadRow;
use Magpie\Core\PartsList\RowReader;
use Magpie\Core\PartsList\Targets;

/** A parts list on its way in: uploaded, mapped, previewed, and only then stored. */
final class ImportController
{
    private const PREVIEWED = 200;

    /** Seconds one waits for a worker at most, and without a sign of life once it has begun. */
    private const WAITS = 900;

    private const DEAD = 30;

    public function store(Request $request, Build $build): JsonResponse
    {
        $request->validate(
            ['file' => ['required', 'file', 'max:51200']],
            ['file.max' => 'The list is larger than 50 MB.', 'file.required' => 'Choose a CSV file first.'],
        );
        /** @var UploadedFile $file */
        $file = $request->file('file');
        $key = (string) Str::uuid();
        Storage::putFileAs('imports', $file, "{$key}.csv");
        try {
            CsvFile::settle(Storage::path("imports/{$key}.csv"));
            $csv = self::csv($key);
            $header = Mapping::headerAmong($csv->opening());
            $headings = $csv->headings($header);
            if (count($headings) < 2) {
                throw CannotImport::because(
                    'This is not a table: no line at its start has columns parted by comma, semicolon or tab.',
                );
            }
            $rows = $csv->countRows($header);
        } catch (CannotImport $e) {
            Storage::delete("imports/{$key}.csv");
            throw ValidationException::withMessages(['file' => $e->getMessage()]);
        }
        $import = $build->imports()->create([
            'user_id' => Access::user()?->id,
            'key' => $key,
            'file_name' => mb_substr($file->getClientOriginalName(), 0, 150),
            'rows' => $rows,
            'state' => 'previewed',
            'mapping' => Mapping::guess($headings, $build->currency, $header)->toArray(),
        ]);

        return new JsonResponse($this->preview($import, $build), 201);
    }

    /** Lists that are being stored into the build now, for whoever comes back to the page. */
    public function going(Build $build): JsonResponse
    {
        $going = $build->imports()->where('state', 'running')->orderByDesc('id')->get();

        return new JsonResponse($going->map(static fn (Import $one): array => self::state($one))->all());
    }

    public function show(Import $import): JsonResponse
    {
        return new JsonResponse(self::state($import));
    }

    /**
     * @return array<string, mixed>
     */
    private static function state(Import $import): array
    {
        /** @var array{at: int, seen: int}|null $progress */
        $progress = Cache::get(Importer::progressKey($import));
        if (
            $import->state === 'running' &&
            ($progress === null
                ? now()->diffInSeconds($import->updated_at, true) > self::WAITS
                : time() - $progress['at'] > self::DEAD)
        ) {
            // Its work was one transaction, and "done" was written inside it: what is not done was not stored.
            $import->update(['state' => 'interrupted']);
        }

        return [
            'key' => $import->key,
            'state' => $import->state,
            'trouble' => $import->trouble,
            'stored' => $import->stored,
            'skipped' => $import->skipped,
            'seen' => $progress['seen'] ?? 0,
            'of' => $import->rows,
        ];
    }

    /** Another mapping, and the preview by it. */
    public function update(Request $request, Import $import): JsonResponse
    {
        $build = $import->build()->firstOrFail();
        $request->validate(['mapping' => ['required', 'array']]);
        abort_if($import->state !== 'previewed', 409, 'This list was dealt with already.');
        /** @var array<string, mixed> $mapping */
        $mapping = (array) $request->json('mapping');
        $import->update($this->remapped($import, Mapping::fromArray($mapping, $build->currency)));

        return new JsonResponse($this->preview($import, $build));
    }

    /**
     * Where other headings were picked, their columns are matched anew and the lines counted from there.
     *
     * @return array<string, mixed>
     *
     * @throws ValidationException
     */
    private function remapped(Import $import, Mapping $mapping): array
    {
        $was = is_int($import->mapping['header'] ?? null) ? $import->mapping['header'] : 1;
        if ($mapping->header === $was) {
            return ['mapping' => $mapping->toArray()];
        }
        $csv = self::csv($import->key);
        $headings = $csv->headings($mapping->header);
        if (count(array_filter($headings, static fn (string $h): bool => trim($h) !== '')) < 2) {
            throw ValidationException::withMessages([
                'mapping.header' => "Line {$mapping->header} holds no headings: it has fewer than two columns filled in.",
            ]);
        }
        $found = Mapping::guess($headings, $mapping->currency, $mapping->header);

        return [
            'mapping' => [
                'targets' => $found->toArray()['targets'],
                'units' => $found->toArray()['units'],
                'families' => (object) [],
            ] + $mapping->toArray(),
            'rows' => $csv->countRows($mapping->header),
        ];
    }

    public function confirm(Import $import): JsonResponse
    {
        $claimed = Import::query()
            ->whereKey($import->id)
            ->whereIn('state', ['previewed', 'interrupted'])
            ->update(['state' => 'running', 'trouble' => null, 'updated_at' => now()]);
        abort_if($claimed === 0, 409, 'This list was dealt with already.');
        StoreList::dispatch($import->id);

        return $this->show($import->refresh());
    }

    public function destroy(Import $import): JsonResponse
    {
        if ($import->state === 'running') {
            Cache::put(Importer::cancelKey($import), true, 600);
        } elseif ($import->state === 'previewed') {
            $import->update(['state' => 'cancelled']);
            Storage::delete("imports/{$import->key}.csv");
        }

        return $this->show($import->refresh());
    }

    /**
     * @return array<string, mixed>
     */
    private function preview(Import $import, Build $build): array
    {
        $csv = self::csv($import->key);
        $mapping = Mapping::fromArray($import->mapping ?? [], $build->currency);
        $reader = new RowReader($mapping, Catalogue::standard(), (new Shelf($build))->named(...));
        $states = ['good' => 0, 'guessed' => 0, 'doubted' => 0, 'partly' => 0, 'refused' => 0];
        $rows = [];
        foreach ($csv->rows($mapping->header) as $number => $cells) {
            $row = $reader->read($number, $cells);
            $states[$row->state()]++;
            // The first lines, and of the rest those that want attention.
            if (count($rows) < self::PREVIEWED && (count($rows) < 40 || $row->state() !== 'good')) {
                $rows[] = self::row($row, $cells);
            }
        }

        return [
            'key' => $import->key,
            'file_name' => $import->file_name,
            'headings' => $csv->headings($mapping->header),
            'mapping' => $mapping->toArray(),
            'targets' => Targets::all(),
            'rows' => $rows,
            'states' => $states,
            'of' => $import->rows,
        ];
    }

    /**
     * @param  list<string>  $cells
     * @return array<string, mixed>
     */
    private static function row(ReadRow $row, array $cells): array
    {
        $specs = [];
        foreach ($row->part->specs ?? [] as $spec) {
            $specs[] = [
                'key' => $spec->key,
                'label' => $row->part?->family->field($spec->key)->label ?? $spec->key,
                'value' => $spec->printed(),
            ];
        }

        return [
            'line' => $row->line,
            'state' => $row->state(),
            'cells' => array_map(static fn (string $c): string => mb_substr($c, 0, 120), $cells),
            'name' => $row->part?->name,
            'family' => $row->part?->family->title(),
            'kind' => $row->part?->family->key(),
            'sure' => $row->sure,
            'library' => $row->library,
            'quantity' => $row->need['quantity'] ?? null,
            'specs' => $specs,
            'price' => $row->offer === null ? null : "{$row->offer['currency']} {$row->offer['price']}",
            'problems' => $row->problems,
            'doubts' => array_map(static fn (Doubt $d): array => $d->toArray(), $row->doubts),
        ];
    }

    private static function csv(string $key): CsvFile
    {
        return new CsvFile(Storage::path("imports/{$key}.csv"));
    }
}
