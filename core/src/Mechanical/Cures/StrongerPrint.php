<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Cures;

use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Build;

/** Printed as heavy-duty parts are: walls, infill and closed layers. */
final readonly class StrongerPrint implements Cure
{
    public function families(Finding $finding, Build $build): array
    {
        return [];
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $part = $at->build->needs[$finding->subject->ref]->choice ?? '';
        yield new Remedy(
            'Printed with 4 walls, 40 % infill and 5 layers',
            [
                Remedy::spec($part, 'walls', '4'),
                Remedy::spec($part, 'infill', '40 %'),
                Remedy::spec($part, 'top_bottom_layers', '5'),
            ],
            false,
        );
    }
}
