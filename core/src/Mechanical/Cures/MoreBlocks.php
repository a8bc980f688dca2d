<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** More blocks on each rail. */
final readonly class MoreBlocks implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $ref = $finding->subject->ref;
        $axis = $at->build->axes[$ref] ?? null;
        if ($axis === null) {
            return;
        }
        foreach ([$axis->blocks + 1, $axis->blocks + 2] as $count) {
            yield Remedy::setting(
                "{$count} blocks on each rail of {$axis->name}",
                'axes',
                $ref,
                ['blocks'],
                $count,
                true,
            );
        }
    }
}
