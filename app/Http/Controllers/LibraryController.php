<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Library\Shelf;
use App\Models\LibraryPart;
use App\Models\Workshop;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as Query;
use Illuminate\Database\Query\JoinClause;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Collection;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Library\Wanted;
use Magpie\Core\Library\WantedFigure;

final class LibraryController
{
    private const PAGE = 80;

    /** Found, at the most, that they are not looked for again: their ids come with how many there are. */
    private const FEW = 5_000;

    /** Bytes against bytes: letters of a collation, even of a binary one, take three times as long. */
    private const HAS = 'cast(words as binary) like ?';

    /** Lines of a sheet that a line of the list tells. */
    private const TOLD = 4;

    private const INDEXES = 'library_parts_workshop_id_ref_unique, library_parts_workshop_id_family_name_index';

    /**
     * One page of what carries all the words and holds all the figures, by family and name, or by one line of its sheet;
     * with how many there are in each family, and the figures that were understood.
     */
    public function index(Request $request, Workshop $workshop): JsonResponse
    {
        $data = $request->validate([
            'words' => ['sometimes', 'nullable', 'string', 'max:200'],
            'family' => ['sometimes', 'nullable', 'string', 'max:40'],
            'by' => ['sometimes', 'nullable', 'string', 'regex:/^-?[a-z0-9_]{1,64}$/'],
            'from' => ['sometimes', 'integer', 'min:0'],
        ]);
        $wanted = Wanted::read($data['words'] ?? '', Catalogue::standard()->all());
        $words = $wanted->words;
        // The longest leaves the fewest to be looked at for the others.
        usort($words, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));
        $found = LibraryPart::query()->where('workshop_id', $workshop->id);
        foreach ($words as $word) {
            $found->whereRaw(self::HAS, [self::within($word)]);
        }
        foreach ($wanted->figures as $figure) {
            $found->where(
                static fn (Builder $either) => $either
                    ->whereExists(static fn (Query $line) => self::holds($line, $figure))
                    ->when(
                        $figure->plain !== null,
                        static fn (Builder $or) => $or->orWhereRaw(self::HAS, [self::within((string) $figure->plain)]),
                    ),
            );
        }
        $counted = (clone $found)->groupBy('family')->selectRaw('family, count(*) as pieces');
        $narrowed = $words !== [] || $wanted->figures !== [];
        if ($narrowed) {
            // All rows have to be looked at: one after the other, not by the index from one page to another.
            $counted
                ->ignoreIndex(self::INDEXES)
                ->selectRaw('if(count(*) <= ?, group_concat(id), null) as ids', [self::FEW]);
        }
        $rows = $counted->toBase()->get();
        $families = $rows->pluck('pieces', 'family')->map(static fn (mixed $pieces): int => (int) $pieces);
        if (($data['family'] ?? '') !== '') {
            $found->where('family', $data['family']);
            $rows = $rows->where('family', $data['family']);
        }
        if ($narrowed && $rows->sum('pieces') <= self::FEW) {
            $found = LibraryPart::query()->whereIn('library_parts.id', explode(',', $rows->pluck('ids')->implode(',')));
        }
        $from = (int) ($data['from'] ?? 0);
        $page =
            ($data['by'] ?? '') === ''
                ? self::byName($found, trim($data['words'] ?? ''), $from)
                : self::byFigure($found, $data['by'])->offset($from)->limit(self::PAGE)->pluck('library_parts.id');
        $order = $page->flip();
        $lines = LibraryPart::query()
            ->whereIn('id', $page)
            ->get()
            ->sortBy(static fn (LibraryPart $part): int => (int) $order[$part->id])
            ->values();
        $total = ($data['family'] ?? '') === '' ? $families->sum() : $families->get($data['family'], 0);

        return new JsonResponse([
            'total' => $total,
            'families' => (object) $families->all(),
            'figures' => array_column($wanted->figures, 'text'),
            'lines' => $lines->map(self::line(...))->all(),
        ]);
    }

    private static function within(string $word): string
    {
        return '%'.addcslashes($word, '%_\\').'%';
    }

    private static function holds(Query $line, WantedFigure $figure): void
    {
        $line
            ->from('library_figures')
            ->whereColumn('library_figures.library_part_id', 'library_parts.id')
            ->where('dimension', $figure->dimension->value)
            ->when($figure->specs !== [], static fn (Query $named) => $named->whereIn('spec', $figure->specs))
            ->when($figure->low !== null, static fn (Query $over) => $over->where('high', '>=', $figure->low))
            ->when($figure->high !== null, static fn (Query $under) => $under->where('low', '<=', $figure->high));
    }

    /**
     * A page of what is called just as it was typed, then of the rest, each by family and name: one after the other, so that each
     * goes along the index and ends with the page.
     *
     * @param  Builder<LibraryPart>  $found
     * @return Collection<array-key, mixed> ids
     */
    private static function byName(Builder $found, string $typed, int $from): Collection
    {
        $page = static fn (Builder $some, int $from, int $most): Collection => $some
            ->orderBy('family')
            ->orderBy('name')
            ->offset($from)
            ->limit($most)
            ->pluck('library_parts.id');
        if ($typed === '') {
            return $page($found, $from, self::PAGE);
        }
        $called = (clone $found)->whereRaw('name like ?', [self::within($typed)]);
        $ids = $page(clone $called, $from, self::PAGE);
        if ($ids->count() === self::PAGE) {
            return $ids;
        }
        $before = $from === 0 ? $ids->count() : $called->count();

        return $ids->concat(
            $page(
                $found->whereRaw('name not like ?', [self::within($typed)]),
                max(0, $from - $before),
                self::PAGE - $ids->count(),
            ),
        );
    }

    /**
     * By one line of the sheets ("-key": the largest first), those without it last.
     *
     * @param  Builder<LibraryPart>  $found
     * @return Builder<LibraryPart>
     */
    private static function byFigure(Builder $found, string $by): Builder
    {
        return $found
            ->leftJoin(
                'library_figures',
                static fn (JoinClause $on) => $on
                    ->on('library_figures.library_part_id', '=', 'library_parts.id')
                    ->where('library_figures.spec', ltrim($by, '-')),
            )
            ->orderByRaw('library_figures.low is null')
            ->orderBy('library_figures.low', str_starts_with($by, '-') ? 'desc' : 'asc')
            ->orderBy('name');
    }

    /**
     * @return array<string, mixed> as it was given, not read yet
     */
    private static function entry(Request $request): array
    {
        /** @var array<string, mixed> $entry */
        $entry = (array) $request->json('entry');

        return $entry;
    }

    public function show(LibraryPart $item): JsonResponse
    {
        return new JsonResponse(self::whole($item));
    }

    public function store(Request $request, Workshop $workshop): JsonResponse
    {
        $request->validate(['entry' => ['required', 'array']]);

        return new JsonResponse(self::whole($this->shelf($request, $workshop)->add(self::entry($request))), 201);
    }

    public function update(Request $request, LibraryPart $item): JsonResponse
    {
        $data = $request->validate(['entry' => ['required', 'array'], 'version' => ['required', 'integer']]);

        return new JsonResponse(
            self::whole(
                $this->shelf($request, Workshop::query()->findOrFail($item->workshop_id))->change(
                    $item,
                    self::entry($request),
                    (int) $data['version'],
                ),
            ),
        );
    }

    public function destroy(Request $request, LibraryPart $item): Response
    {
        $this->shelf($request, Workshop::query()->findOrFail($item->workshop_id))->remove($item);

        return new Response(status: 204);
    }

    public function undo(Request $request, Workshop $workshop): JsonResponse
    {
        return new JsonResponse([
            'ref' => $this->shelf($request, $workshop)->undo() ?? abort(409, 'There is nothing of yours to undo.'),
        ]);
    }

    /** The shipped examples, priced in the currency asked for, or in that of most builds of the workshop. */
    public function examples(Request $request, Workshop $workshop): JsonResponse
    {
        $given = $request->validate(['currency' => ['sometimes', 'nullable', 'string', 'regex:/^[A-Z]{3}$/']]);
        $currency = $given['currency'] ?? $workshop->builds()
            ->select('currency')
            ->groupBy('currency')
            ->orderByRaw('count(*) desc')
            ->value('currency');

        return new JsonResponse(
            ['added' => $this->shelf($request, $workshop)->addExamples(is_string($currency) ? $currency : null)],
            201,
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function line(LibraryPart $part): array
    {
        $line = [
            'id' => $part->id,
            'ref' => $part->ref,
            'family' => $part->family,
            'name' => $part->name,
            'example' => $part->example,
        ];
        try {
            $entry = $part->read();
        } catch (CannotReadBuildFile $e) {
            return $line + [
                'key_specs' => "cannot be read at {$e->getMessage()}",
                'price' => null,
                'currency' => null,
                'faults' => 0,
            ];
        }
        $price = $entry->latestOffer()?->price;

        return $line + [
            'key_specs' => implode(' · ', array_slice($entry->telling(), 0, self::TOLD)),
            'price' => $price?->exactAmount(),
            'currency' => $price?->currency,
            'faults' => count($entry->faults) + count($entry->pairings),
        ];
    }

    /**
     * @return array<string, mixed>
     */
    private static function whole(LibraryPart $part): array
    {
        return [
            'id' => $part->id,
            'version' => $part->version,
            'entry' => LibraryFile::write($part->read()),
            'used_in' => Shelf::usedIn($part),
        ];
    }

    private function shelf(Request $request, Workshop $workshop): Shelf
    {
        return new Shelf($workshop, Access::user());
    }
}
