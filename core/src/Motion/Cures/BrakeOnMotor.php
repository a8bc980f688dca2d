<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** A motor that holds when it has no power. */
final readonly class BrakeOnMotor implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $axis = $at->build->axes[$finding->subject->ref] ?? null;
        $motor = $at->build->fitted($axis?->drive->motors[0] ?? '');
        if ($axis !== null && $motor !== null) {
            yield new Remedy(
                "A motor with a brake for {$axis->name}",
                [Remedy::spec($motor->part->ref, 'brake', true)],
                true,
            );
        }
    }
}
