<?php

declare(strict_types=1);

namespace App\Builds;

use App\Accounts\Access;
use App\Accounts\Role;
use App\Models\Build;
use App\Models\Errand;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Database\Eloquent\Builder;
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

    /** As add, by somebody: who begins a build may say who sees it, and delete it. */
    public static function begin(Workshop $workshop, Machine $machine, ?User $by): Build
    {
        return DB::transaction(static function () use ($workshop, $machine, $by): Build {
            $build = self::add($workshop, $machine);
            if ($by !== null && Access::ofWorkshop($by, $workshop->id) !== Role::Owner) {
                DB::table('build_people')->insert([
                    'build_id' => $build->id,
                    'user_id' => $by->id,
                    'role' => Role::Owner->value,
                    'created_at' => now(),
                    'updated_at' => now(),
                ]);
            }

            return $build;
        });
    }

    private static function put(Workshop $workshop, Machine $machine): Build
    {
        return DB::transaction(static function () use ($workshop, $machine): Build {
            $document = Document::from(BuildFile::data($machine));
            $build = $workshop->builds()->create([
                'slug' => self::freeSlug($workshop->builds()->getQuery(), $machine->plan->name, 'build'),
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
        $errands = Errand::query()->where('build_id', $build->id)->get();
        DB::transaction(static function () use ($build): void {
            // What entries name of one another goes first: steps wait for steps, places stand on places, in any order.
            foreach (Schema::sections() as $table) {
                foreach ($table->inner as $list) {
                    DB::table($list->table->name)
                        ->whereIn('owner_id', DB::table($table->name)->where('build_id', $build->id)->select('id'))
                        ->delete();
                }
            }
            foreach (array_reverse(Schema::sections()) as $table) {
                DB::table($table->name)->where('build_id', $build->id)->delete();
            }
            $build->delete();
        });
        // Where all of this is part of something larger, not before that is done.
        DB::afterCommit(static function () use ($build, $errands): void {
            Storage::deleteDirectory("photos/{$build->id}");
            $errands->each->dropFiles();
        });
    }

    /**
     * A short name for an address that none of those it stands among has.
     *
     * @param  Builder<Build>|Builder<Workshop>  $among
     */
    public static function freeSlug(Builder $among, string $name, string $else): string
    {
        $base = Str::limit(Str::slug($name), 56, '') ?: $else;
        $slug = $base;
        for ($i = 2; $among->clone()->where('slug', $slug)->exists(); $i++) {
            $slug = "{$base}-{$i}";
        }

        return $slug;
    }
}
