<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Library\Shelf;
use App\Models\LibraryPart;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Library\BookOffer;
use Magpie\Core\Machine\Spec;

final class LibraryController
{
    private const PAGE = 200;

    /** Found in a family, at the most, that their ids are told with their number. */
    private const FEW = 400;

    private const INDEXES = 'library_parts_workshop_id_ref_unique, library_parts_workshop_id_family_name_index';

    /** One page of what carries all the words, by family and name; with how many there are in each family. */
    public function index(Request $request, Workshop $workshop): JsonResponse
    {
        $data = $request->validate([
            'words' => ['sometimes', 'nullable', 'string', 'max:200'],
            'family' => ['sometimes', 'nullable', 'string', 'max:40'],
            'from' => ['sometimes', 'integer', 'min:0'],
        ]);
        $words = preg_split('/\s+/', mb_strtolower($data['words'] ?? ''), -1, PREG_SPLIT_NO_EMPTY) ?: [];
        // The longest leaves the fewest to be looked at for the others.
        usort($words, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));
        $found = LibraryPart::query()->where('workshop_id', $workshop->id);
        foreach ($words as $word) {
            $found->where('words', 'like', '%'.addcslashes($word, '%_\\').'%');
        }
        $counted = (clone $found)->groupBy('family')->selectRaw('family, count(*) as pieces');
        if ($words !== []) {
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
        if ($words !== [] && $rows->whereNull('ids')->isEmpty()) {
            $found = LibraryPart::query()->whereIn('id', explode(',', $rows->pluck('ids')->implode(',')));
        }
        $page = $found
            ->orderBy('family')
            ->orderBy('name')
            ->offset((int) ($data['from'] ?? 0))
            ->limit(self::PAGE)
            ->pluck('id');
        $lines = LibraryPart::query()->whereIn('id', $page)->orderBy('family')->orderBy('name')->get();
        $total = ($data['family'] ?? '') === '' ? $families->sum() : $families->get($data['family'], 0);

        return new JsonResponse([
            'total' => $total,
            'families' => (object) $families->all(),
            'lines' => $lines->map(self::line(...))->all(),
        ]);
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
            'ref' => $this->shelf($request, $workshop)->undo() ?? abort(409, 'There is nothing of yours to take back.'),
        ]);
    }

    public function examples(Request $request, Workshop $workshop): JsonResponse
    {
        return new JsonResponse(['added' => $this->shelf($request, $workshop)->addExamples()], 201);
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
        $offers = $entry->offers;
        usort($offers, static fn (BookOffer $a, BookOffer $b): int => strcmp($b->date, $a->date));

        return $line + [
            'key_specs' => implode(
                ', ',
                array_map(
                    static fn (Spec $s): string => $s->printed(),
                    array_slice(
                        array_values(
                            array_filter($entry->part->specs, static fn (Spec $s): bool => $s->flag() === null),
                        ),
                        0,
                        4,
                    ),
                ),
            ),
            'price' => isset($offers[0]) ? $offers[0]->price->exactAmount() : null,
            'currency' => isset($offers[0]) ? $offers[0]->price->currency : null,
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
        $user = $request->user();

        return new Shelf($workshop, $user instanceof User ? $user : null);
    }
}
