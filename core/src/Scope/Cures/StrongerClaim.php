<?php

declare(strict_types=1);

namespace Magpie\Core\Scope\Cures;

use Magpie\Core\Format\Sections\SpecForm;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** The claim with the strongest evidence counts, and the one that counted stays beside it. */
final readonly class StrongerClaim implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $key = explode('/', $finding->subject->ref, 2)[1] ?? '';
        $fitted = $at->survey->build->fitted($finding->subject->needs[0] ?? '');
        $spec = $fitted?->part->spec($key);
        $best = $spec;
        foreach ($spec->rivals ?? [] as $rival) {
            $best = $best?->evidence->isWeakerThan($rival->evidence) === true ? $rival : $best;
        }
        if ($fitted === null || $spec === null || $best === null || $best === $spec) {
            return;
        }
        yield new Remedy(
            "Take {$best->printed()}, {$best->evidence->label()}; {$spec->printed()} stays beside it",
            [Remedy::set('parts', $fitted->part->ref, ['specs', $key], SpecForm::write($spec->giveWayTo($best)))],
            false,
        );
    }
}
