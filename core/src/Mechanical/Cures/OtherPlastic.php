<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** Printed in a plastic that softens later. */
final readonly class OtherPlastic implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $need = $finding->subject->ref;
        $fitted = $at->build->fitted($need);
        if ($fitted === null) {
            return;
        }
        foreach (['PETG', 'ASA', 'ABS', 'PC'] as $material) {
            if ($fitted->part->spec('material')?->choice() !== $material) {
                yield new Remedy(
                    "{$fitted->need->role} printed in {$material}",
                    [Remedy::spec($fitted->part->ref, 'material', $material)],
                    false,
                );
            }
        }
    }
}
