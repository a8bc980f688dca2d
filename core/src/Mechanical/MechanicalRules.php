<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical;

use Magpie\Core\Inspection\Check;

/** The mechanical trade's checks, in the order of the handbook. */
final class MechanicalRules
{
    /**
     * @return list<Check>
     */
    public static function all(): array
    {
        return [
            new TravelStack,
            new DriveForce,
            new PowerDrop,
            new InertiaRatio,
            new ScrewSpeed,
            new ScrewPreload,
            new BeltDrive,
            new GuideLoad,
            new CutterFit,
            new MeltFlow,
            new Interfaces,
            new ShaftGrip,
            new CutOut,
            new ScrewFit,
            new NamedClearance,
            new BeamBend,
            new PrintedPartHeat,
            new PrintRecipe,
            new FilamentEnough,
            new PrintWeight,
            new PlateSize,
            new SheetSurface,
            new Rust,
        ];
    }
}
