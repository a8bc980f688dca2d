<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Cures;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\Adopting;
use Magpie\Core\Inspection\Cure;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Remedy;
use Magpie\Core\Inspection\Repair;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;

/** A further board beside the one that has too few channels. */
final readonly class MoreChannels implements Cure
{
    /** Boards of the library tried. */
    private const TRIED = 10;

    public function families(Finding $finding, Build $build): array
    {
        $families = [];
        foreach (Catalogue::standard()->all() as $key => $family) {
            if (in_array(Ability::HasChannels, $family->abilities(), true)) {
                $families[] = $key;
            }
        }

        return $families;
    }

    public function remedies(Finding $finding, Repair $at): iterable
    {
        $need = Adopting::free("more-{$finding->subject->ref}", $at->build->needs);
        $role = $at->build->roleOf($finding->subject->ref);
        foreach ($this->families($finding, $at->build) as $family) {
            foreach (array_slice($at->shelf($family), 0, self::TRIED) as $entry) {
                yield new Remedy(
                    "{$entry->part->name} beside {$role}",
                    Adopting::need($at->build, $entry, $need, "More channels beside {$role}", ['purpose' => 'core']),
                    true,
                );
            }
        }
    }
}
