<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Check;
use Magpie\Core\Motion\StepRate;

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
            new StepRate,
            new Signals,
            new Ports,
            new FanJob,
            new Protection,
            new MainsEntry,
            new MainsHands,
            new MainsCircuit,
            new SolidState,
            new MainStop,
            new Interference,
            new MovingLead,
            new ChainFill,
            new Terminations,
            new Settings,
            new SpindleOnDrive,
            new CabinetHeat,
            new StartLine,
            new Energy,
        ];
    }
}
