<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Build;
use App\Models\Workshop;
use Illuminate\Database\UniqueConstraintViolationException;
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
        // Two builds of one name may be made at the same moment: the later one takes the next free address.
        for ($tries = 5; ; $tries--) {
            try {
                return self::put($workshop, $machine);
            } catch (UniqueConstraintViolationException $e) {
                if ($tries === 0) {
                    throw $e;
                }
            }
        }
    }

    private static function put(Workshop $workshop, Machine $machine): Build
    {
        return DB::transaction(static function () use ($workshop, $machine): Build {
            $document = Document::from(BuildFile::data($machine));
            $build = $workshop->builds()->create([
                'slug' => self::freeSlug($workshop, $machine->plan->name),
                'name' => $machine->plan->name,
                'kind' => $machine->plan->kind,
                'currency' => $machine->plan->currency,
                'revision' => 1,
            ]);
            $store = new Store($build);
            foreach (array_keys(Schema::headers()) as $header) {
                $store->writeHeader($header, $document->header($header));
            }
            foreach (array_keys(Schema::sections()) as $section) {
                foreach ($document->section($section) as $entry) {
                    $store->insert($section, $entry);
                }
                $store->settle();
            }
            Judging::of($build, $document);

            return $build;
        });
    }

    /** The pictures one build's faults name, for another build that names them too. */
    public static function copyPhotos(Build $from, Build $to): void
    {
        foreach ($from->photos()->get() as $photo) {
            if (Storage::exists("photos/{$from->id}/{$photo->name}")) {
                Storage::copy("photos/{$from->id}/{$photo->name}", "photos/{$to->id}/{$photo->name}");
                $to->photos()->create($photo->only(['user_id', 'name', 'bytes']));
            }
        }
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
        $slug = $base;
        for ($i = 2; $workshop->builds()->where('slug', $slug)->exists(); $i++) {
            $slug = "{$base}-{$i}";
        }

        return $slug;
    }
}
