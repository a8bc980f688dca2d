<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Build;
use App\Models\Workshop;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build as Machine;

/** Puts a whole build into a workshop. */
final class Workspace
{
    public static function add(Workshop $workshop, Machine $machine): Build
    {
        return DB::transaction(static function () use ($workshop, $machine): Build {
            $data = BuildFile::data($machine);
            $build = $workshop->builds()->create([
                'slug' => self::freeSlug($workshop, $machine->plan->name),
                'name' => $machine->plan->name,
                'kind' => $machine->plan->kind,
                'currency' => $machine->plan->currency,
                'revision' => 1,
            ]);
            $store = new Store($build);
            foreach (array_keys(Schema::headers()) as $header) {
                $store->writeHeader($header, $data[$header] ?? []);
            }
            foreach (array_keys(Schema::sections()) as $section) {
                $entries = $data[$section] ?? [];
                // Steps wait for each other in any order: what they wait for is written once all are there.
                foreach ($entries as $entry) {
                    $store->insert($section, $section === 'steps' ? array_diff_key($entry, ['after' => true]) : $entry);
                }
                foreach ($section === 'steps' ? $entries : [] as $entry) {
                    $store->update($section, $entry['ref'], $entry);
                }
            }
            Document::from($data)->keep($build);

            return $build;
        });
    }

    /** Takes a build out of its workshop, with all that belongs to it. */
    public static function remove(Build $build): void
    {
        DB::transaction(static function () use ($build): void {
            foreach (array_reverse(Schema::sections()) as $table) {
                DB::table($table->name)->where('build_id', $build->id)->delete();
            }
            $build->delete();
        });
        Storage::deleteDirectory("photos/{$build->id}");
    }

    private static function freeSlug(Workshop $workshop, string $name): string
    {
        $base = Str::limit(Str::slug($name), 56, '') ?: 'build';
        for ($slug = $base, $i = 2; $workshop->builds()->where('slug', $slug)->exists(); $i++) {
            $slug = "{$base}-{$i}";
        }

        return $slug;
    }
}
