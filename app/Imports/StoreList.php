<?php

declare(strict_types=1);

namespace App\Imports;

use App\Models\Import;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Facades\Storage;
use Throwable;

/** Stores a confirmed list in the background, once. How far it is and what came of it is told at the import. */
final class StoreList implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    /** Seconds. */
    public int $timeout = 900;

    public function __construct(private readonly int $import)
    {
    }

    public function handle(): void
    {
        $import = Import::query()->where('state', 'running')->find($this->import);
        if ($import === null) {
            return;
        }
        $file = "imports/{$import->key}.csv";
        try {
            (new Importer($import, Storage::path($file), now()->format('Y-m-d')))->run();
            Storage::delete($file);
        } catch (CannotImport $e) {
            $import->update(['trouble' => mb_substr($e->getMessage(), 0, 500)]);
        } catch (Throwable $e) {
            report($e);
            // All of it was one transaction: nothing was stored.
            $import->update(['state' => 'interrupted']);
        }
    }
}
