<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Part;
use Magpie\Core\Money\OrderLine;
use Magpie\Core\Money\ToOrder;

/**
 * Pieces of other builds of the workshop that are over there and wanted here: the same part of the library, or one of the same
 * kind and name. What is only on its way to another build is not offered.
 *
 * @phpstan-type Spare array{part: string, name: string, wanted: int, from: int|string, build: string, there: string, over: int,
 *     take: int}
 */
final class Stock
{
    /**
     * @param  array<int|string, Build>  $others  by what names them
     * @return list<Spare> by name
     */
    public static function spare(Build $here, array $others): array
    {
        $wanted = array_filter(ToOrder::of($here), static fn (OrderLine $l): bool => $l->order() > 0);
        $rows = [];
        foreach ($wanted === [] ? [] : $others as $from => $other) {
            foreach (ToOrder::of($other) as $there) {
                $over = self::over($there);
                foreach ($over === 0 ? [] : $wanted as $line) {
                    if (self::isSame($here->parts[$line->part], $other->parts[$there->part])) {
                        $rows[] = [
                            'part' => $line->part,
                            'name' => $line->name,
                            'wanted' => $line->order(),
                            'from' => $from,
                            'build' => $other->plan->name,
                            'there' => $there->part,
                            'over' => $over,
                            'take' => min($over, $line->order()),
                        ];
                    }
                }
            }
        }
        usort($rows, static fn (array $a, array $b): int => [$a['name'], $a['build']] <=> [$b['name'], $b['build']]);

        return $rows;
    }

    /** Pieces that lie in the workshop and are for nothing there. */
    private static function over(OrderLine $line): int
    {
        return min($line->over(), $line->owned + $line->here);
    }

    /** Whether one may stand for the other: of the same entry of the library, or of the same kind and name. */
    public static function isSame(?Part $one, ?Part $other): bool
    {
        if ($one === null || $other === null || $one->family->key() !== $other->family->key()) {
            return false;
        }

        return ($one->library !== null && $one->library === $other->library) ||
            mb_strtolower(trim($one->name)) === mb_strtolower(trim($other->name));
    }

    /**
     * What becomes of a build that gives pieces away: bought ones first, marked as moved, then those from the drawer.
     *
     * @return list<array{section: string, ref: string, set: list<array{path: list<string>, to: int|null}>}> null when it has not so many over
     */
    public static function giving(Build $build, string $part, int $pieces): ?array
    {
        $lines = array_column(ToOrder::of($build), null, 'part');
        if ($pieces < 1 || ! isset($lines[$part]) || self::over($lines[$part]) < $pieces) {
            return null;
        }
        $changes = [];
        foreach ($build->purchases as $purchase) {
            $now = $purchase->part === $part ? min($pieces, $purchase->here()) : 0;
            if ($now > 0) {
                $changes[] = self::set('purchases', $purchase->ref, 'moved', $purchase->moved + $now);
                $pieces -= $now;
            }
        }
        foreach ($build->needs as $need) {
            $now = $build->fitted($need->ref)?->part->ref === $part ? min($pieces, $need->owned) : 0;
            if ($now > 0) {
                $changes[] = self::set('needs', $need->ref, 'owned', $need->owned - $now ?: null);
                $pieces -= $now;
            }
        }

        return $changes;
    }

    /**
     * What becomes of a build that takes them: they are owned, place by place.
     *
     * @return list<array{section: string, ref: string, set: list<array{path: list<string>, to: int|null}>}> null when it wants fewer
     */
    public static function taking(Build $build, string $part, int $pieces): ?array
    {
        $lines = array_column(ToOrder::of($build), null, 'part');
        if ($pieces < 1 || ! isset($lines[$part]) || $lines[$part]->order() < $pieces) {
            return null;
        }
        $needs = array_values(
            array_filter($build->needs, static fn ($need): bool => $build->fitted($need->ref)?->part->ref === $part),
        );
        $changes = [];
        foreach ($needs as $i => $need) {
            $room = max(0, $need->quantity + $need->sparesOf($need->quantity) - $need->owned);
            $now = $i === count($needs) - 1 ? $pieces : min($pieces, $room);
            if ($now > 0) {
                $changes[] = self::set('needs', $need->ref, 'owned', $need->owned + $now);
                $pieces -= $now;
            }
        }

        return $changes;
    }

    /**
     * @return array{section: string, ref: string, set: list<array{path: list<string>, to: int|null}>}
     */
    private static function set(string $section, string $ref, string $key, ?int $to): array
    {
        return ['section' => $section, 'ref' => $ref, 'set' => [['path' => [$key], 'to' => $to]]];
    }
}
