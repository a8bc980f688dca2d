<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;
use Magpie\Core\Quantity\Quantity;

/** A driver set lower, or with a heat sink. */
final readonly class LowerCurrent implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $driver = $finding->subject->ref;
        $driven = DrivenMotor::of($at->survey, $driver);
        $rated = $driven === null ? null : $driven->weakest();
        if ($driven === null || $rated === null) {
            return;
        }
        foreach ([0.85, 0.8, 0.7] as $share) {
            $set = Quantity::of(round($rated->in('A') * $share * $driven->sharing(), 2), 'A');
            yield new Remedy(
                "Set {$driven->driver->need->role} to {$set}",
                [Remedy::spec($driven->driver->part->ref, 'set_current', $set->text())],
                false,
            );
        }
        yield new Remedy(
            "A heat sink on {$driven->driver->need->role}",
            [Remedy::spec($driven->driver->part->ref, 'heat_sink', true)],
            true,
        );
    }
}
