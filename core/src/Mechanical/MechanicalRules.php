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
            new ScrewFit,
            new PrintedPartHeat,
            new PlateSize,
        ];
    }
}
