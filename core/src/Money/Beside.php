<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Part;
use Magpie\Core\Printing\Recipe;
use Magpie\Core\Quantity\Money;

/**
 * What a build has beside the money that was paid, and is never added to it: pieces from the drawer, salvaged or given, at
 * what they would cost to buy; what was printed; and hours of one's own.
 *
 * @phpstan-type BesideSums array{stock: string, stock_pieces: int, unpriced: int, printed_pieces: int, printed_grams: float,
 *     hours: float}
 */
final class Beside
{
    /**
     * @param  callable(Part, int): array{Offer|null, Money|null}  $cheapest
     * @return BesideSums
     */
    public static function of(Build $build, callable $cheapest): array
    {
        $stock = Money::zero($build->plan->currency);
        $pieces = $unpriced = $printed = 0;
        $grams = $seconds = 0.0;
        foreach (ToOrder::of($build) as $line) {
            $used = min($line->owned, $line->needed + $line->spare);
            if ($used > 0) {
                [, $cost] = $cheapest($build->parts[$line->part], $used);
                $pieces += $used;
                $unpriced += $cost === null ? $used : 0;
                $stock = $cost === null ? $stock : $stock->plus($cost);
            }
        }
        foreach ($build->prints as $run) {
            $one = $run->mass?->in('g') ?? (Recipe::of($build->parts[$run->part])->grams() ?? 0.0);
            $printed += $run->made();
            $grams += $one * ($run->good + $run->failed);
        }
        foreach ($build->steps as $step) {
            foreach ($step->timings as $timing) {
                $seconds += $timing->stop === null ? 0 : $timing->stop - $timing->start;
            }
        }

        return [
            'stock' => $stock->amount(),
            'stock_pieces' => $pieces,
            'unpriced' => $unpriced,
            'printed_pieces' => $printed,
            'printed_grams' => round($grams, 0),
            'hours' => round($seconds / 3600, 1),
        ];
    }
}
