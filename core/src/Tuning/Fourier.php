<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/** The discrete Fourier transform (Cooley and Tukey 1965), of a length that is a power of two, in place. */
final class Fourier
{
    /**
     * @param  array<int, float>  $re
     * @param  array<int, float>  $im
     */
    public static function transform(array &$re, array &$im): void
    {
        $n = count($re);
        for ($i = 1, $j = 0; $i < $n; $i++) {
            $bit = $n >> 1;
            while (($j & $bit) !== 0) {
                $j ^= $bit;
                $bit >>= 1;
            }
            $j ^= $bit;
            if ($i < $j) {
                [$re[$i], $re[$j]] = [$re[$j], $re[$i]];
                [$im[$i], $im[$j]] = [$im[$j], $im[$i]];
            }
        }
        [$cos, $sin] = self::roots($n);
        for ($half = 1; $half < $n; $half <<= 1) {
            $stride = intdiv($n, $half << 1);
            for ($k = 0; $k < $half; $k++) {
                $c = $cos[$k * $stride];
                $s = $sin[$k * $stride];
                for ($a = $k; $a < $n; $a += $half << 1) {
                    $b = $a + $half;
                    $x = $re[$b] * $c + $im[$b] * $s;
                    $y = $im[$b] * $c - $re[$b] * $s;
                    $re[$b] = $re[$a] - $x;
                    $im[$b] = $im[$a] - $y;
                    $re[$a] += $x;
                    $im[$a] += $y;
                }
            }
        }
    }

    /**
     * @return array{list<float>, list<float>} cosines and sines of half a turn
     */
    private static function roots(int $n): array
    {
        /** @var array<int, array{list<float>, list<float>}> $kept */
        static $kept = [];
        if (! isset($kept[$n])) {
            $cos = $sin = [];
            for ($k = 0; $k < $n >> 1; $k++) {
                $cos[] = cos((2 * M_PI * $k) / $n);
                $sin[] = sin((2 * M_PI * $k) / $n);
            }
            $kept = [$n => [$cos, $sin]];
        }

        return $kept[$n];
    }

    /** The power of two that is not less. */
    public static function atLeast(int $n): int
    {
        $power = 1;
        while ($power < $n) {
            $power <<= 1;
        }

        return $power;
    }
}
