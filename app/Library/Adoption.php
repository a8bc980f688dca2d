<?php

declare(strict_types=1);

namespace App\Library;

use App\Builds\CannotEdit;
use App\Models\LibraryPart;
use Illuminate\Support\Str;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Machine\Build;

/** The edit that takes a part of the library into a build as a candidate: its sheet, its suppliers and their prices. */
final class Adoption
{
    /**
     * @return list<array<string, mixed>> changes, see docs/api/openapi.json
     *
     * @throws CannotEdit
     */
    public static function changes(Build $build, string $need, LibraryPart $item): array
    {
        $held = $build->needs[$need] ?? throw CannotEdit::at("/needs/{$need}", "there is no need \"{$need}\".");
        $entry = LibraryFile::read($item->entry);
        if ($held->family !== $entry->part->family->key()) {
            throw CannotEdit::at("/needs/{$need}/candidates", "\"{$entry->part->name}\" is a {$entry->part->family->title()}; this need asks for another family ({$held->family}).");
        }
        foreach ($held->candidates as $candidate) {
            if ($build->parts[$candidate]->library === $item->ref) {
                throw CannotEdit::at("/needs/{$need}/candidates", "\"{$entry->part->name}\" is a candidate for it already.");
            }
        }
        $part = LibraryFile::write($entry)['part'];
        $ref = self::free($entry->part->ref, $build->parts);
        foreach ($build->parts as $known) {
            // The same part may be a candidate for several needs.
            $ref = $known->library === $item->ref ? $known->ref : $ref;
        }
        $changes = isset($build->parts[$ref]) ? [] : [['section' => 'parts', 'create' => ['ref' => $ref, 'library' => $item->ref] + $part], ...self::offers($build, $entry->offers, $ref)];

        return [...$changes, ['section' => 'needs', 'ref' => $need, 'set' => [['path' => ['candidates'], 'to' => [...$held->candidates, $ref]]]]];
    }

    /**
     * @param  list<\Magpie\Core\Library\BookOffer>  $offers
     * @return list<array<string, mixed>>
     */
    private static function offers(Build $build, array $offers, string $part): array
    {
        $changes = [];
        $suppliers = array_map(static fn ($s): string => $s->name, $build->suppliers);
        $taken = $build->offers;
        foreach ($offers as $offer) {
            $supplier = array_search($offer->supplier, $suppliers, true);
            if ($supplier !== false && $build->suppliers[$supplier]->currency !== $offer->price->currency) {
                continue;
            }
            if ($supplier === false) {
                $supplier = self::free(Str::slug($offer->supplier) ?: 'supplier', $suppliers);
                $suppliers[$supplier] = $offer->supplier;
                $changes[] = ['section' => 'suppliers', 'create' => ['ref' => $supplier, 'name' => $offer->supplier, 'currency' => $offer->price->currency] + ($offer->leadDays === null ? [] : ['lead_days' => $offer->leadDays])];
            }
            $ref = self::free("{$part}-price", $taken);
            $taken[$ref] = true;
            $changes[] = ['section' => 'offers', 'create' => ['ref' => $ref, 'part' => $part, 'supplier' => $supplier, 'price' => $offer->price->exactAmount(), 'pack' => $offer->pack, 'date' => $offer->date]];
        }

        return $changes;
    }

    /**
     * @param  array<string, mixed>  $taken
     */
    private static function free(string $stem, array $taken): string
    {
        $stem = substr($stem, 0, 58);
        for ($free = $stem, $i = 2; isset($taken[$free]); $i++) {
            $free = "{$stem}-{$i}";
        }

        return $free;
    }
}
