<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Quantity\Quantity;

/**
 * The order screws round a part are tightened in, and the torques of its stages (W1): four 1-3-2-4, eight 1-5-3-7-2-6-4-8,
 * at about 30, 70 and 100 %, then once round. ASME PCC-1, from memory.
 */
final class Crosswise
{
    /** Shares of the torque, stage by stage. */
    public const STAGES = [0.3, 0.7, 1.0];

    /**
     * @param  int  $count  of screws round the circle, from 1
     * @return list<int> their numbers, in the order they are tightened
     */
    public static function order(int $count): array
    {
        if ($count % 4 !== 0) {
            return self::byHalves($count);
        }
        $order = [];
        $fours = intdiv($count, 4);
        // Fours that stand square to one another; many fours go crosswise too.
        foreach ($fours % 4 === 0 ? self::order($fours) : range(1, $fours) as $first) {
            foreach ([0, 2, 1, 3] as $quarter) {
                $order[] = $first + intdiv($quarter * $count, 4);
            }
        }

        return $order;
    }

    /**
     * Each followed by the one as far across as there is.
     *
     * @return list<int>
     */
    private static function byHalves(int $count): array
    {
        $half = (int) ceil($count / 2);
        $order = [];
        for ($i = 1; $i <= $half; $i++) {
            $order[] = $i;
            if ($i + $half <= $count) {
                $order[] = $i + $half;
            }
        }

        return $order;
    }

    /** As one says it at the bench; of many screws only the rule, since nobody counts to thirty round a part. */
    public static function says(int $count, ?Quantity $torque): string
    {
        $order = match (true) {
            $count < 3 => '',
            $count <= 12 => 'crosswise, '.implode('-', self::order($count)).', ',
            default => 'each followed by the one farthest across, ',
        };
        if ($torque === null) {
            return $order === '' ? '' : rtrim($order, ', ').', then once round';
        }
        $newton = array_map(
            static fn (float $share): string => (string) round($torque->in('N m') * $share, 2),
            $count < 3 ? [1.0] : self::STAGES,
        );

        return $order.'at '.implode(', then ', $newton).' N m'.($count < 3 ? '' : ', then once round');
    }
}
