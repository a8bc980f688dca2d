<?php

declare(strict_types=1);

use App\Models\LibraryPart;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What the sheets of the library say in figures stands beside them, so that a search can compare it. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('library_figures', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('library_part_id')->constrained()->cascadeOnDelete();
            $table->string('spec', 64);
            $table->string('dimension', 32);
            // In the SI unit of the dimension.
            $table->double('low');
            $table->double('high');
            $table->index(['library_part_id', 'spec']);
            $table->index(['dimension', 'low', 'high']);
        });
        LibraryPart::query()->chunkById(500, static function (iterable $parts): void {
            LibraryPart::keepFigures($parts);
            foreach ($parts as $part) {
                // By now a part is found by every word its kind is known by.
                foreach (LibraryPart::readable([$part]) as $entry) {
                    DB::table('library_parts')->where('id', $part->id)->update(['words' => $entry->words()]);
                }
            }
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('library_figures');
    }
};
