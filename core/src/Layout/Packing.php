<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/**
 * Rectangles on a wall without overlap, in two ways: in rows, in the order they are given; and as near to each other as they
 * go, each into the free room it fits best (largest free rectangles, best short side), the best of several orders. Neither is
 * proven to be the least.
 *
 * @phpstan-type Item array{key: string, w: float, h: float}
 * @phpstan-type Laid array{key: string, x: float, y: float, w: float, h: float, turned: bool}
 */
final class Packing
{
    /**
     * In rows from left to right, each as high as its highest; none when one is wider than the wall or there is no room left.
     *
     * @param  list<Item>  $items
     * @return list<Laid>|null
     */
    public static function rows(array $items, float $width, float $height): ?array
    {
        $laid = [];
        $x = $y = $row = 0.0;
        foreach ($items as $item) {
            if ($x > 0 && $x + $item['w'] > $width + 1e-9) {
                [$x, $y, $row] = [0.0, $y + $row, 0.0];
            }
            if ($item['w'] > $width + 1e-9 || $y + $item['h'] > $height + 1e-9) {
                return null;
            }
            $laid[] = $item + ['x' => $x, 'y' => $y, 'turned' => false];
            $x += $item['w'];
            $row = max($row, $item['h']);
        }

        return $laid;
    }

    /**
     * As near as they go in the order they are given, so that neighbours in it stay near each other.
     *
     * @param  list<Item>  $items
     * @return list<Laid>|null
     */
    public static function inOrder(array $items, float $width, float $height): ?array
    {
        return self::fill($items, $width, $height, true);
    }

    /**
     * As near to each other as they go; none when they do not go.
     *
     * @param  list<Item>  $items
     * @return list<Laid>|null
     */
    public static function dense(array $items, float $width, float $height, bool $turns = true): ?array
    {
        $best = null;
        $least = INF;
        foreach (self::orders($items) as $order) {
            $laid = self::fill($order, $width, $height, $turns);
            $used = $laid === null ? INF : self::used($laid);
            if ($used < $least) {
                [$best, $least] = [$laid, $used];
            }
        }

        return $best;
    }

    /**
     * How high up the wall it goes.
     *
     * @param  list<Laid>  $laid
     */
    public static function used(array $laid): float
    {
        return max([0.0, ...array_map(static fn (array $one): float => $one['y'] + $one['h'], $laid)]);
    }

    /**
     * @param  list<Item>  $items
     * @return iterable<list<Item>>
     */
    private static function orders(array $items): iterable
    {
        $by = [
            static fn (array $i): float => $i['w'] * $i['h'],
            static fn (array $i): float => max($i['w'], $i['h']),
            static fn (array $i): float => $i['h'],
            static fn (array $i): float => $i['w'],
            static fn (array $i): float => $i['w'] + $i['h'],
        ];
        foreach ($by as $size) {
            $order = $items;
            usort($order, static fn (array $a, array $b): int => [$size($b), $a['key']] <=> [$size($a), $b['key']]);
            yield $order;
        }
    }

    /**
     * @param  list<Item>  $items
     * @return list<Laid>|null
     */
    private static function fill(array $items, float $width, float $height, bool $turns): ?array
    {
        $free = [[0.0, 0.0, $width, $height]];
        $laid = [];
        foreach ($items as $item) {
            $best = null;
            $score = [INF, INF];
            foreach ($free as [$x, $y, $w, $h]) {
                foreach ($turns ? [false, true] : [false] as $turned) {
                    [$a, $b] = $turned ? [$item['h'], $item['w']] : [$item['w'], $item['h']];
                    if ($a > $w + 1e-9 || $b > $h + 1e-9) {
                        continue;
                    }
                    // As low as it goes, then into the room it fits best.
                    $here = [$y + $b, min($w - $a, $h - $b)];
                    if ($here < $score) {
                        [$score, $best] = [
                            $here,
                            ['key' => $item['key'], 'x' => $x, 'y' => $y, 'w' => $a, 'h' => $b, 'turned' => $turned],
                        ];
                    }
                }
            }
            if ($best === null) {
                return null;
            }
            $laid[] = $best;
            $free = self::without($free, $best);
        }

        return $laid;
    }

    /**
     * Free room with one more taken out of it: of each rectangle it cuts, the largest that are left on its sides.
     *
     * @param  list<array{float, float, float, float}>  $free
     * @param  Laid  $taken
     * @return list<array{float, float, float, float}>
     */
    private static function without(array $free, array $taken): array
    {
        [$left, $right] = [$taken['x'], $taken['x'] + $taken['w']];
        [$low, $high] = [$taken['y'], $taken['y'] + $taken['h']];
        $next = [];
        foreach ($free as [$x, $y, $w, $h]) {
            if ($left >= $x + $w - 1e-9 || $right <= $x + 1e-9 || $low >= $y + $h - 1e-9 || $high <= $y + 1e-9) {
                $next[] = [$x, $y, $w, $h];

                continue;
            }
            $sides = [
                [$x, $y, $left - $x, $h],
                [$right, $y, $x + $w - $right, $h],
                [$x, $y, $w, $low - $y],
                [$x, $high, $w, $y + $h - $high],
            ];
            foreach ($sides as $side) {
                if ($side[2] > 1e-9 && $side[3] > 1e-9) {
                    $next[] = $side;
                }
            }
        }

        return self::largest($next);
    }

    /**
     * Those that lie in none of the others.
     *
     * @param  list<array{float, float, float, float}>  $free
     * @return list<array{float, float, float, float}>
     */
    private static function largest(array $free): array
    {
        $kept = [];
        foreach ($free as $i => [$x, $y, $w, $h]) {
            foreach ($free as $j => [$ox, $oy, $ow, $oh]) {
                $inside =
                    $x >= $ox - 1e-9 && $y >= $oy - 1e-9 && $x + $w <= $ox + $ow + 1e-9 && $y + $h <= $oy + $oh + 1e-9;
                $same = abs($x - $ox) + abs($y - $oy) + abs($w - $ow) + abs($h - $oh) < 1e-9;
                if ($i !== $j && $inside && (! $same || $j < $i)) {
                    continue 2;
                }
            }
            $kept[] = [$x, $y, $w, $h];
        }

        return $kept;
    }
}
