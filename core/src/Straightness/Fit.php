<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness;

/** Least squares. */
final class Fit
{
    /**
     * @param  non-empty-list<float>  $x
     * @param  non-empty-list<float>  $y
     * @return array{float, float} slope and intercept; a level line where all x are the same
     */
    public static function line(array $x, array $y): array
    {
        $n = count($x);
        [$mx, $my] = [array_sum($x) / $n, array_sum($y) / $n];
        $sxx = $sxy = 0.0;
        foreach ($x as $i => $one) {
            $sxx += ($one - $mx) ** 2;
            $sxy += ($one - $mx) * ($y[$i] - $my);
        }
        $slope = $sxx > 0 ? $sxy / $sxx : 0.0;

        return [$slope, $my - $slope * $mx];
    }

    /**
     * Solves a small set of equations by elimination with pivots.
     *
     * @param  array<int, array<int, float>>  $a  square
     * @param  array<int, float>  $b
     * @return list<float>|null null where they do not stand apart
     */
    public static function solve(array $a, array $b): ?array
    {
        $n = count($b);
        $scale = 1e-300;
        foreach ($a as $row) {
            foreach ($row as $one) {
                $scale = max($scale, abs($one));
            }
        }
        for ($i = 0; $i < $n; $i++) {
            $pivot = $i;
            for ($j = $i + 1; $j < $n; $j++) {
                $pivot = abs($a[$j][$i]) > abs($a[$pivot][$i]) ? $j : $pivot;
            }
            if (abs($a[$pivot][$i]) < 1e-12 * $scale) {
                return null;
            }
            [$a[$i], $a[$pivot], $b[$i], $b[$pivot]] = [$a[$pivot], $a[$i], $b[$pivot], $b[$i]];
            for ($j = $i + 1; $j < $n; $j++) {
                $f = $a[$j][$i] / $a[$i][$i];
                for ($k = $i; $k < $n; $k++) {
                    $a[$j][$k] -= $f * $a[$i][$k];
                }
                $b[$j] -= $f * $b[$i];
            }
        }
        $x = array_fill(0, $n, 0.0);
        for ($i = $n - 1; $i >= 0; $i--) {
            $sum = $b[$i];
            for ($k = $i + 1; $k < $n; $k++) {
                $sum -= $a[$i][$k] * $x[$k];
            }
            $x[$i] = $sum / $a[$i][$i];
        }

        return array_values($x);
    }

    /**
     * Coefficients of some columns that come nearest to values.
     *
     * @param  array<int, array<int, float>>  $rows  one a value
     * @param  array<int, float>  $values
     * @return list<float>|null
     */
    public static function least(array $rows, array $values): ?array
    {
        $n = count($rows[0] ?? []);
        $a = array_fill(0, $n, array_fill(0, $n, 0.0));
        $b = array_fill(0, $n, 0.0);
        foreach ($rows as $r => $row) {
            for ($i = 0; $i < $n; $i++) {
                $b[$i] += $row[$i] * $values[$r];
                for ($j = 0; $j < $n; $j++) {
                    $a[$i][$j] += $row[$i] * $row[$j];
                }
            }
        }

        return self::solve($a, $b);
    }
}
