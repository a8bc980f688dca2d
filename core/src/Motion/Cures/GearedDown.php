<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** A reduction between motor and axis, where there is none. */
final readonly class GearedDown implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $axis = $at->build->axes[$finding->subject->ref] ?? null;
        if ($axis === null || $axis->drive->ratio !== null) {
            return;
        }
        foreach (['1.5', '2', '3'] as $ratio) {
            yield Remedy::drive($axis, "Gear {$axis->name} down {$ratio}:1", ['ratio' => $ratio], true);
        }
    }
}
