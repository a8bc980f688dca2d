<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Example;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** An example cure: in the core it would be one file in Mechanical/Cures, named by its check. */
final readonly class LongerBellows implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return ['bellows'];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $now = $at->build->fitted($finding->subject->ref);
        if ($now !== null) {
            yield new Remedy('Bellows with more folds', [Remedy::spec($now->part->ref, 'open', '500 mm')], true);
        }
    }
}
