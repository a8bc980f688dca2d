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

    /**
     * The same as a mixed-integer program in CPLEX's LP format, amounts in whole money.
     *
     * @param  list<list<array<int, int>>>  $lines
     * @param  list<list<array{int, int, float, float}>>  $terms
     */
    public static function model(array $lines, array $terms, int $most): string
    {
        $costs = $rows = $whole = $open = [];
        foreach ($lines as $i => $ways) {
            $names = array_map(static fn (int $w): string => "x_{$i}_{$w}", array_keys($ways));
            $rows[] = implode(' + ', $names).' = 1';
            $whole = [...$whole, ...$names];
        }
        foreach ($terms as $s => $stretches) {
            $most0 = 0;
            $bought = '';
            foreach ($lines as $i => $ways) {
                foreach ($ways as $w => $way) {
                    if (isset($way[$s])) {
                        $bought .= sprintf(' - %.6f x_%d_%d', $way[$s] / 1e6, $i, $w);
                        $most0 += $way[$s];
                    }
                }
            }
            $goods = $taken = [];
            foreach ($stretches as $k => [$from, $to, $fixed, $slope]) {
                [$g, $z] = ["g_{$s}_{$k}", "z_{$s}_{$k}"];
                $costs[] = sprintf('%+.9f %s %+.9f %s', $fixed, $z, $slope * 1e6, $g);
                $rows[] = sprintf('%s - %.6f %s >= 0', $g, $from / 1e6, $z);
                $rows[] = sprintf('%s - %.6f %s <= 0', $g, min($to, $most0) / 1e6, $z);
                [$goods[], $taken[], $whole[]] = [$g, $z, $z];
            }
            $rows[] = implode(' + ', $goods)."{$bought} = 0";
            $rows[] = implode(' + ', $taken).' <= 1';
            $open = [...$open, ...$taken];
        }
        if ($most < PHP_INT_MAX) {
            $rows[] = implode(' + ', $open)." <= {$most}";
        }
        $named = array_map(static fn (int $n, string $row): string => " r{$n}: {$row}", array_keys($rows), $rows);

        return "Minimize\n obj: ".
            implode("\n ", $costs).
            "\nSubject To\n".
            implode("\n", $named).
            "\nBinary\n ".
            implode("\n ", $whole).
            "\nEnd\n";
    }
}
