<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Check;

/** The electrical trade's checks, in the order of the handbook. */
final class ElectricalRules
{
    /**
     * @return list<Check>
     */
    public static function all(): array
    {
        return [
            new HeaterAtItsVoltage,
            new ContactLoad,
            new ContactOpens,
            new ConductorLoad,
            new VoltageDrop,
            new SupplyLoad,
            new SupplyFeatures,
            new VoltageWindow,
            new BoardOutput,
            new MotorCurrent,
            new MotorVoltage,
            new Protection,
            new MainsEntry,
            new MainsHands,
            new MainsCircuit,
            new SolidState,
            new MovingLead,
            new Terminations,
            new Energy,
        ];
    }
}
