<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** A gentler start and stop. */
final readonly class GentlerAcceleration implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $axis = $at->build->axes[$finding->subject->ref] ?? null;
        foreach ([0.75, 0.5, 0.25] as $share) {
            $gentler = $axis?->drive->acceleration?->times($share)->rounded(2);
            if ($axis !== null && $gentler !== null) {
                yield Remedy::drive($axis, "Accelerate {$axis->name} at {$gentler}", [
                    'acceleration' => $gentler->text(),
                ]);
            }
        }
    }
}
