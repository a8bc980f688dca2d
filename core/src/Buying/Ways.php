<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Quantity\Money;

/**
 * The ways to buy so many pieces of one part: all from one supplier that has enough, in the packs that cost least
 * there; where one has too few, all it has, and the rest elsewhere, from three suppliers at the most. No pack too many is
 * bought, but for least orders.
 */
final readonly class Ways
{
    private const SUPPLIERS = 3;

    /** Combinations of packs tried one by one; beyond, only the counts nearest to the most and to none. */
    private const TRIED = 20_000;

    /**
     * @param  list<Offer>  $offers  of the part, at suppliers that may be bought from
     * @return list<array<string, list<Lot>>> each by supplier; none where there are too few in all
     */
    public static function of(array $offers, int $pieces): array
    {
        $by = [];
        foreach ($offers as $offer) {
            $by[$offer->supplier][] = $offer;
        }
        ksort($by);
        $ways = $short = [];
        foreach ($by as $supplier => $held) {
            $lots = self::at($held, $pieces);
            if ($lots !== null) {
                $ways[] = [(string) $supplier => $lots];
            } elseif (($all = self::all($held)) !== []) {
                $short[(string) $supplier] = $all;
            }
        }

        return [...$ways, ...self::shared($by, $short, $pieces, [])];
    }

    /**
     * All that suppliers with too few have, and the rest from one more.
     *
     * @param  array<string, list<Offer>>  $by
     * @param  array<string, list<Lot>>  $short  what each of those has that has too few
     * @param  array<string, list<Lot>>  $taken
     * @return list<array<string, list<Lot>>>
     */
    private static function shared(array $by, array $short, int $pieces, array $taken): array
    {
        if (count($taken) === self::SUPPLIERS - 1) {
            return [];
        }
        $ways = [];
        while ($short !== []) {
            $supplier = (string) array_key_first($short);
            $lots = array_shift($short);
            $rest = $pieces - array_sum(array_map(static fn (Lot $l): int => $l->pieces(), $lots));
            $with = $taken + [$supplier => $lots];
            foreach ($by as $other => $offers) {
                $last = isset($with[$other]) || $rest <= 0 ? null : self::at($offers, $rest);
                // Two that have too few each may share it either way round.
                if ($last !== null) {
                    $ways[] = $with + [(string) $other => $last];
                }
            }
            $ways = [...$ways, ...$rest > 0 ? self::shared($by, $short, $rest, $with) : []];
        }

        return $ways;
    }

    /**
     * The cheapest lots of one supplier's offers that have so many pieces.
     *
     * @param  list<Offer>  $offers
     * @return list<Lot>|null null where it has too few
     */
    public static function at(array $offers, int $pieces): ?array
    {
        usort($offers, static fn (Offer $a, Offer $b): int => $b->pack <=> $a->pack);
        $tries = 1;
        foreach (array_slice($offers, 0, -1) as $offer) {
            $tries *= 1 + (int) ceil($pieces / $offer->pack);
        }

        return self::cheapest($offers, $pieces, $tries > self::TRIED)[0];
    }

    /**
     * @param  list<Offer>  $offers
     * @param  bool  $few  whether only the counts nearest to the most and to none are tried
     * @return array{list<Lot>|null, Money|null}
     */
    private static function cheapest(array $offers, int $pieces, bool $few): array
    {
        if ($pieces <= 0) {
            return [[], null];
        }
        if ($offers === []) {
            return [null, null];
        }
        $offer = array_shift($offers);
        $most = $offer->packsFor($pieces);
        $best = [null, null];
        for ($packs = $offers === [] ? $most : 0; $packs <= $most; $packs++) {
            if ($few && $packs > 8 && $packs < $most - 32) {
                $packs = $most - 32;
            }
            if ($packs > 0 && ($packs < $offer->least || ($offer->stock !== null && $packs > $offer->stock))) {
                continue;
            }
            [$lots, $rest] = self::cheapest($offers, $pieces - $packs * $offer->pack, $few);
            if ($lots === null) {
                continue;
            }
            $cost =
                $packs === 0 ? $rest : ($rest === null ? $offer->costOf($packs) : $offer->costOf($packs)->plus($rest));
            if ($best[0] === null || ($cost !== null && $best[1] !== null && $cost->compare($best[1]) < 0)) {
                $best = [[...$packs > 0 ? [new Lot($offer, $packs)] : [], ...$lots], $cost];
            }
        }

        return $best;
    }

    /**
     * All one supplier has.
     *
     * @param  list<Offer>  $offers
     * @return list<Lot>
     */
    private static function all(array $offers): array
    {
        $lots = [];
        foreach ($offers as $offer) {
            if ($offer->stock !== null && $offer->stock >= $offer->least && $offer->stock > 0) {
                $lots[] = new Lot($offer, $offer->stock);
            }
        }

        return $lots;
    }
}
