<?php

declare(strict_types=1);

namespace Magpie\Core\Motion;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Quantity\Quantity;

/** What a rail, or a given span, leaves an axis to travel. */
final class UsableTravel
{
    /** Travel left when blocks, stops and all else have taken their share. */
    public static function of(Inquiry $inquiry, Axis $axis): Quantity
    {
        $where = "axes/{$axis->ref}";
        if ($axis->rail !== null) {
            $rail =
                $inquiry->build->fitted($axis->rail) ??
                $inquiry->lack('a rail for '.$inquiry->build->roleOf($axis->rail));
            $length = $inquiry->read($rail, 'length', 'L', Bound::Lowest);
            $block = $inquiry->read($rail, 'block_length', 'L_b', Bound::Highest);
            if ($axis->blocks > 1) {
                $pitch = $inquiry->given(
                    "distance between the blocks of {$axis->name}",
                    'p',
                    $axis->blockPitch,
                    Evidence::Measured,
                    "{$where}/block_pitch",
                );
                $block = $inquiry->work(
                    'Length the blocks cover',
                    'L_c = L_b + (n − 1) × p',
                    ['L_b' => $block, 'n' => Quantity::ratio($axis->blocks), 'p' => $pitch],
                    $block->plus($pitch->times($axis->blocks - 1)),
                    'mm',
                );
            }
            $symbols = ['L' => $length, 'L_c' => $block];
            $usable = $length->minus($block);
        } else {
            $usable = $inquiry->given(
                "rail of {$axis->name}, or the length there is to begin with",
                'L',
                $axis->span,
                $axis->spanEvidence,
                "{$where}/span",
            );
            $symbols = ['L' => $usable];
        }
        foreach ($axis->takes as $i => $taker) {
            $symbols['t_'.($i + 1)] = $inquiry->given(
                $taker->what,
                't_'.($i + 1),
                $taker->length,
                $taker->evidence,
                "{$where}/takes/{$i}/length",
            );
            $usable = $usable->minus($taker->length);
        }

        return $inquiry->work(
            'Travel that is left',
            'L_u = '.implode(' − ', array_keys($symbols)),
            $symbols,
            $usable,
            'mm',
        );
    }
}
