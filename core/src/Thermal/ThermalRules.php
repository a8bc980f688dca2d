<?php

declare(strict_types=1);

namespace Magpie\Core\Thermal;

use Magpie\Core\Inspection\Check;

/** The thermal trade's checks, in the order of the handbook. */
final class ThermalRules
{
    /**
     * @return list<Check>
     */
    public static function all(): array
    {
        return [new HeatUp, new WattDensity, new CutOff, new ZoneHeat];
    }
}
