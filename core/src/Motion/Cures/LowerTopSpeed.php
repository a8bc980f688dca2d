<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** A lower top speed. */
final readonly class LowerTopSpeed implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $axis = $at->build->axes[$finding->subject->ref] ?? null;
        foreach ([0.8, 0.65, 0.5, 0.35] as $share) {
            $slower = $axis?->drive->topSpeed?->times($share)->rounded(2);
            if ($axis !== null && $slower !== null) {
                yield Remedy::drive($axis, "Limit {$axis->name} to {$slower}", ['top_speed' => $slower->text()]);
            }
        }
    }
}
