<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Magpie\Core\Format\CsvLine;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;

/** The parts list of a build as RFC 4180 rows, with headings the import knows again. */
final class PartsListExport
{
    private const LINE = [
        'ref',
        'role',
        'family',
        'name',
        'quantity',
        'spares',
        'owned',
        'supplier',
        'price',
        'currency',
        'pack',
        'notes',
    ];

    /**
     * @return iterable<string> one line each, ended by CR LF
     */
    public static function lines(Build $build): iterable
    {
        $keys = [];
        foreach ($build->allFitted() as $fitted) {
            foreach ($fitted->part->specs as $key => $spec) {
                $keys[$key] = true;
            }
        }
        $keys = array_keys($keys);
        $offers = [];
        foreach ($build->offers as $offer) {
            $offers[$offer->part] ??= $offer;
        }
        yield CsvLine::of([...self::LINE, ...$keys]);
        foreach ($build->allFitted() as $fitted) {
            yield CsvLine::of([
                ...self::cells($build, $fitted, $offers[$fitted->part->ref] ?? null),
                ...array_map(static fn (string $key): string => self::spec($fitted->part->spec($key)), $keys),
            ]);
        }
    }

    /**
     * @return list<string>
     */
    private static function cells(Build $build, Fitted $fitted, ?Offer $offer): array
    {
        return [
            $fitted->need->ref,
            $fitted->need->role,
            $fitted->part->family->key(),
            $fitted->part->name,
            (string) $fitted->need->quantity,
            $fitted->need->spares?->text() ?? '',
            (string) ($fitted->need->owned ?: ''),
            $offer === null ? '' : $build->suppliers[$offer->supplier]->name,
            $offer?->price->exactAmount() ?? '',
            $offer?->price->currency ?? '',
            $offer === null ? '' : (string) $offer->pack,
            $fitted->part->notes ?? '',
        ];
    }

    private static function spec(?Spec $spec): string
    {
        return match (true) {
            $spec === null => '',
            $spec->value instanceof Quantity, $spec->value instanceof Range => $spec->value->text(),
            is_bool($spec->value) => $spec->value ? 'yes' : 'no',
            default => $spec->value,
        };
    }
}
