<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Library\BookOffer;
use Magpie\Core\Library\Entry;
use Magpie\Core\Machine\Build;

/**
 * The changes of a build file that bring a library entry in: its sheet, its suppliers and their prices.
 *
 * @phpstan-import-type Change from Changes
 */
final class Adopting
{
    /**
     * @return array{string, list<Change>} ref of the part in the build, and changes as
     * docs/api/openapi.json has them
     */
    public static function changes(Build $build, Entry $entry): array
    {
        foreach ($build->parts as $known) {
            // The same part may be a candidate for several needs.
            if ($known->library === $entry->part->ref) {
                return [$known->ref, []];
            }
        }
        $ref = self::free($entry->part->ref, $build->parts);
        /** @var array<string, mixed> $sheet */
        $sheet = LibraryFile::write($entry)['part'];
        $part = ['ref' => $ref, 'library' => $entry->part->ref] + $sheet;

        return [$ref, [['section' => 'parts', 'create' => $part], ...self::offers($build, $entry->offers, $ref)]];
    }

    /**
     * A library entry as a need of its own, one piece unless it says otherwise, with the entry itself where the build
     * has it not yet.
     *
     * @param  string  $ref  free among the needs
     * @param  array<string, mixed>  $rest  further members of the need
     * @return list<Change>
     */
    public static function need(Build $build, Entry $entry, string $ref, string $role, array $rest): array
    {
        [$part, $changes] = self::changes($build, $entry);

        return [
            ...$changes,
            [
                'section' => 'needs',
                'create' => $rest + [
                    'ref' => $ref,
                    'role' => $role,
                    'family' => $entry->part->family->key(),
                    'quantity' => 1,
                    'candidates' => [$part],
                    'choice' => $part,
                ],
            ],
        ];
    }

    /**
     * A library entry as a place of its own, chosen.
     *
     * @param  string|null  $role  what it is for; its own name, where that is not said
     * @return list<Change>
     */
    public static function place(Build $build, Entry $entry, int $pieces, ?string $role = null): array
    {
        $stem = $role === null ? '' : trim((string) preg_replace('/[^a-z0-9]+/', '-', strtolower($role)), '-');
        // A name of digits only would be read as another.
        $ref = self::free(preg_match('/[a-z]/', $stem) === 1 ? $stem : $entry->part->ref, $build->needs);

        return self::need(
            $build,
            $entry,
            $ref,
            $role ?? $entry->part->name,
            $pieces === 1 ? [] : ['quantity' => $pieces],
        );
    }

    /**
     * @param  array<string, mixed>  $taken
     */
    public static function free(string $stem, array $taken): string
    {
        $stem = substr($stem, 0, 58);
        $free = $stem;
        for ($i = 2; isset($taken[$free]); $i++) {
            $free = "{$stem}-{$i}";
        }

        return $free;
    }

    /**
     * @param  list<BookOffer>  $offers
     * @return list<Change>
     */
    private static function offers(Build $build, array $offers, string $part): array
    {
        $changes = [];
        $suppliers = array_map(static fn ($s): string => $s->name, $build->suppliers);
        $taken = $build->offers;
        foreach ($offers as $offer) {
            $supplier = array_search($offer->supplier, $suppliers, true);
            if (
                $supplier !== false &&
                isset($build->suppliers[$supplier]) &&
                $build->suppliers[$supplier]->currency !== $offer->price->currency
            ) {
                continue;
            }
            if ($supplier === false) {
                $supplier = self::free(
                    trim((string) preg_replace('/[^a-z0-9]+/', '-', strtolower($offer->supplier)), '-') ?: 'supplier',
                    $suppliers,
                );
                $suppliers[$supplier] = $offer->supplier;
                $changes[] = [
                    'section' => 'suppliers',
                    'create' => ['ref' => $supplier, 'name' => $offer->supplier, 'currency' => $offer->price->currency] +
                        ($offer->leadDays === null ? [] : ['lead_days' => $offer->leadDays]),
                ];
            }
            $ref = self::free("{$part}-price", $taken);
            $taken[$ref] = true;
            $changes[] = [
                'section' => 'offers',
                'create' => [
                    'ref' => $ref,
                    'part' => $part,
                    'supplier' => $supplier,
                    'price' => $offer->price->exactAmount(),
                    'pack' => $offer->pack,
                    'date' => $offer->date,
                ],
            ];
        }

        return $changes;
    }
}
