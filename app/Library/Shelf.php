<?php

declare(strict_types=1);

namespace App\Library;

use App\Builds\CannotEdit;
use App\Builds\Conflict;
use App\Builds\Document;
use App\Models\LibraryChange;
use App\Models\LibraryPart;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Library\Entry;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Simulation\InventedRates;

/** A workshop's library: every write is one transaction, recorded so that it can be taken back. */
final readonly class Shelf
{
    public function __construct(private Workshop $workshop, private ?User $user)
    {
    }

    /**
     * @param  array<string, mixed>  $given
     *
     * @throws CannotEdit when the short name is taken
     * @throws \Magpie\Core\Format\CannotReadBuildFile
     */
    public function add(array $given): LibraryPart
    {
        $entry = LibraryFile::read($given);

        return DB::transaction(function () use ($entry): LibraryPart {
            if ($this->workshop->library()->where('ref', $entry->part->ref)->exists()) {
                throw CannotEdit::at('/entry/part/ref', "there is already a \"{$entry->part->ref}\" in the library.");
            }
            $part = $this->workshop->library()->create(['version' => 1] + self::row($entry));
            $this->record($entry->part->ref, null, LibraryFile::write($entry));

            return $part;
        });
    }

    /**
     * @param  array<string, mixed>  $given
     * @param  int  $version  what the screen showed
     *
     * @throws Conflict when it was changed since
     * @throws CannotEdit
     * @throws \Magpie\Core\Format\CannotReadBuildFile
     */
    public function change(LibraryPart $part, array $given, int $version): LibraryPart
    {
        $entry = LibraryFile::read($given);
        if ($entry->part->ref !== $part->ref) {
            throw CannotEdit::at('/entry/part/ref', 'the short name cannot change: builds may have taken the part.');
        }

        return DB::transaction(function () use ($part, $entry, $version): LibraryPart {
            $held = LibraryPart::query()->lockForUpdate()->findOrFail($part->id);
            if ($held->version !== $version) {
                throw new Conflict([
                    ['section' => 'library', 'ref' => $held->ref, 'path' => [], 'was' => null, 'now' => $held->entry],
                ]);
            }
            $this->record($held->ref, $held->entry, LibraryFile::write($entry));
            $held->update(self::row($entry) + ['version' => $version + 1]);

            return $held;
        });
    }

    /** @throws CannotEdit when a build has chosen it, with where */
    public function remove(LibraryPart $part): void
    {
        DB::transaction(function () use ($part): void {
            $used = self::usedIn($part);
            if ($used !== []) {
                throw CannotEdit::at(
                    "/library/{$part->ref}",
                    "\"{$part->name}\" is taken by ".
                        implode(', ', array_slice($used, 0, 5)).
                        (count($used) > 5 ? ' and '.(count($used) - 5).' more' : '').
                        '. Choose another there first.',
                );
            }
            $this->record($part->ref, $part->entry, null);
            $part->delete();
        });
    }

    /** Takes back this user's last change; null when there is none. */
    public function undo(): ?string
    {
        return DB::transaction(function (): ?string {
            $change = LibraryChange::query()
                ->where(['workshop_id' => $this->workshop->id, 'user_id' => $this->user?->id, 'undone' => false])
                ->orderByDesc('id')
                ->lockForUpdate()
                ->first();
            if ($change === null) {
                return null;
            }
            $held = $this->workshop->library()->where('ref', $change->ref)->lockForUpdate()->first();
            if (self::canonical($held?->entry) !== self::canonical($change->after)) {
                throw new Conflict([
                    [
                        'section' => 'library',
                        'ref' => $change->ref,
                        'path' => [],
                        'was' => $change->after,
                        'now' => $held?->entry,
                    ],
                ]);
            }
            if ($change->before === null) {
                $held?->delete();
            } elseif ($held === null) {
                $this->workshop
                    ->library()
                    ->create(['version' => 1] + self::row(LibraryFile::read($change->before, kept: true)));
            } else {
                $held->update(
                    self::row(LibraryFile::read($change->before, kept: true)) + ['version' => $held->version + 1],
                );
            }
            $change->update(['undone' => true]);

            return $change->ref;
        });
    }

    /**
     * @param  array<string, mixed>  $entry
     * @return array<string, mixed>
     */
    private static function priced(array $entry, string $currency): array
    {
        /** @var list<array{price: string, currency: string}> $offers */
        $offers = $entry['offers'] ?? [];
        foreach ($offers as $at => $offer) {
            $price = InventedRates::turn(Money::of($offer['price'], $offer['currency']), $currency);
            $offers[$at] = ['price' => $price->exactAmount(), 'currency' => $currency] + $offer;
        }

        return $offers === [] ? $entry : ['offers' => $offers] + $entry;
    }

    /**
     * Puts the shipped examples that are not there yet onto the shelf.
     *
     * @param  string|null  $currency  their invented prices are turned into; null leaves them as they are shipped
     */
    public function addExamples(?string $currency = null): int
    {
        /** @var list<array<string, mixed>> $given */
        $given = json_decode(
            (string) file_get_contents(base_path('core/reference/starter-library.json')),
            true,
            64,
            JSON_THROW_ON_ERROR,
        );

        $given = $currency === null ? $given : array_map(static fn (array $one): array => self::priced($one, $currency), $given);

        return DB::transaction(function () use ($given): int {
            $there = $this->workshop->library()->pluck('ref')->flip();
            $entries = array_filter(
                array_map(static fn (array $one): Entry => LibraryFile::read($one), $given),
                static fn (Entry $e): bool => ! $there->has($e->part->ref),
            );
            foreach (array_chunk($entries, 500) as $chunk) {
                LibraryPart::query()->insert(
                    array_map(
                        fn (Entry $e): array => [
                            'workshop_id' => $this->workshop->id,
                            'entry' => Document::json(LibraryFile::write($e)),
                        ] + self::row($e),
                        $chunk,
                    ),
                );
                $refs = array_map(static fn (Entry $e): string => $e->part->ref, $chunk);
                LibraryPart::keepFigures($this->workshop->library()->whereIn('ref', $refs)->get());
            }

            return count($entries);
        });
    }

    /**
     * @return list<string> "Linnet, Spindle"
     */
    public static function usedIn(LibraryPart $part): array
    {
        return array_values(
            DB::table('parts')
                ->join('builds', 'builds.id', '=', 'parts.build_id')
                ->join('needs', 'needs.choice_id', '=', 'parts.id')
                ->where('parts.library', $part->ref)
                ->where('builds.workshop_id', $part->workshop_id)
                ->orderBy('builds.name')
                ->get(['builds.name', 'needs.role'])
                ->map(static fn (object $r): string => "{$r->name}, {$r->role}")
                ->all(),
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function row(Entry $entry): array
    {
        return [
            'ref' => $entry->part->ref,
            'family' => $entry->part->family->key(),
            'name' => $entry->part->name,
            'words' => $entry->words(),
            'example' => $entry->example,
            'entry' => LibraryFile::write($entry),
        ];
    }

    /**
     * @param  array<string, mixed>|null  $before
     * @param  array<string, mixed>|null  $after
     */
    private function record(string $ref, ?array $before, ?array $after): void
    {
        LibraryChange::query()->create([
            'workshop_id' => $this->workshop->id,
            'user_id' => $this->user?->id,
            'ref' => $ref,
            'before' => $before,
            'after' => $after,
            'undone' => false,
            'made_at' => now(),
        ]);
    }

    /**
     * @param  array<string, mixed>|null  $entry
     */
    private static function canonical(?array $entry): string
    {
        return $entry === null ? '' : Document::json(LibraryFile::write(LibraryFile::read($entry, kept: true)));
    }
}
