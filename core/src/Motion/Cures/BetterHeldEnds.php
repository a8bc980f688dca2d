<?php

declare(strict_types=1);

namespace Magpie\Core\Motion\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** The ends of its screw held better. */
final readonly class BetterHeldEnds implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $axis = $at->build->axes[$finding->subject->ref] ?? null;
        if ($axis === null) {
            return;
        }
        foreach (['fixed-supported', 'fixed-fixed'] as $ends) {
            yield Remedy::drive($axis, "Ends of its screw held {$ends}", ['support' => $ends], true);
        }
    }
}
