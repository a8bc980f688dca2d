<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Buying;

use Magpie\Core\Buying\Terms;

/** Seeded splits: lines with a price at some suppliers, terms with steps, thresholds, fees and least orders. */
final class Instances
{
    /**
     * @return array{list<list<array<int, int>>>, list<list<array{int, int, float, float}>>} lines with their ways, and
     * terms by supplier
     */
    public static function of(int $lines, int $suppliers, int $seed): array
    {
        mt_srand($seed);
        $terms = [];
        for ($s = 0; $s < $suppliers; $s++) {
            $shipping = mt_rand(3, 15);
            $free = mt_rand(0, 2) > 0 ? mt_rand(30, 200) : null;
            $tax = mt_rand(0, 2) > 0 ? 0.0 : 0.2;
            $taxFree = mt_rand(0, 1) === 1 ? 100 : null;
            $fee = mt_rand(0, 3) > 0 ? 0.0 : 0.03;
            $least = mt_rand(0, 3) > 0 ? 1 : 20 * Terms::UNIT;
            $starts = [$least];
            if ($free !== null) {
                $starts[] = $free * Terms::UNIT;
            }
            if ($tax > 0 && $taxFree !== null) {
                $starts[] = $taxFree * Terms::UNIT + 1;
            }
            $starts = array_values(array_filter(array_unique($starts), static fn (int $at): bool => $at >= $least));
            sort($starts);
            $stretches = [];
            foreach ($starts as $i => $from) {
                $sent = $free !== null && $from >= $free * Terms::UNIT ? 0 : $shipping;
                $rate = $tax > 0 && ($taxFree === null || $from > $taxFree * Terms::UNIT) ? $tax : 0.0;
                $more = (1 + $rate) * (1 + $fee);
                $stretches[] = [$from, ($starts[$i + 1] ?? 10 ** 15) - 1, $sent * $more, $more / Terms::UNIT];
            }
            $terms[] = $stretches;
        }
        $all = [];
        for ($i = 0; $i < $lines; $i++) {
            $base = exp(mt_rand(0, 450) / 100);
            $ways = [];
            for ($s = 0; $s < $suppliers; $s++) {
                if ($s === 0 || mt_rand(0, 9) < 6) {
                    $ways[] = [$s => (int) round($base * mt_rand(85, 130)) * 10_000];
                }
            }
            // Now and then nobody has enough alone.
            if ($suppliers > 2 && mt_rand(0, 9) === 0) {
                $ways[] = [1 => (int) round($base * 40) * 10_000, 2 => (int) round($base * 45) * 10_000];
            }
            $all[] = $ways;
        }

        return [$all, $terms];
    }

    /**
     * What goods cost at terms.
     *
     * @param  list<array{int, int, float, float}>  $stretches
     */
    public static function cost(array $stretches, int $goods): float
    {
        foreach ($stretches as [$from, $to, $fixed, $slope]) {
            if ($goods >= $from && $goods <= $to) {
                return $fixed + $slope * $goods;
            }
        }

        return $goods === 0 ? 0.0 : INF;
    }
}
