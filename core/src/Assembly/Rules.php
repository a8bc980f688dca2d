<?php

declare(strict_types=1);

namespace Magpie\Core\Assembly;

use Magpie\Core\Commissioning\Rules as Commissioning;
use Magpie\Core\Electrical\Rules as Electrical;
use Magpie\Core\Firmware\Rules as Firmware;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Inspector;
use Magpie\Core\Layout\AsDrawn;
use Magpie\Core\Layout\Rules as Layout;
use Magpie\Core\Mechanical\Rules as Mechanical;
use Magpie\Core\Money\Rules as Money;
use Magpie\Core\Scope\Rules as Scope;
use Magpie\Core\Site\Rules as Site;
use Magpie\Core\Thermal\Rules as Thermal;

/**
 * Where everything is put together: every rule of every trade, one line each, in the order of the handbook. Nothing below
 * knows this list.
 */
final class Rules
{
    private const ALL = [
        // Electrical
        Electrical\HeaterAtItsVoltage::class,
        Electrical\ContactLoad::class,
        Electrical\ContactOpens::class,
        Electrical\ConductorLoad::class,
        Electrical\VoltageDrop::class,
        Electrical\SupplyLoad::class,
        Electrical\SupplyFeatures::class,
        Electrical\OwnPlug::class,
        Electrical\VoltageWindow::class,
        Electrical\BoardOutput::class,
        Electrical\MotorCurrent::class,
        Electrical\MotorVoltage::class,
        Firmware\StepRate::class,
        Electrical\Signals::class,
        Electrical\Ports::class,
        Electrical\FanJob::class,
        Electrical\Protection::class,
        Electrical\MainsEntry::class,
        Electrical\MainsHands::class,
        Electrical\MainsCircuit::class,
        Electrical\SolidState::class,
        Electrical\MainStop::class,
        Electrical\Interference::class,
        Electrical\MovingLead::class,
        Electrical\ChainFill::class,
        Electrical\Terminations::class,
        Firmware\Settings::class,
        Electrical\SpindleOnDrive::class,
        Electrical\CabinetHeat::class,
        Electrical\StartLine::class,
        Electrical\Energy::class,
        Electrical\RatedVoltage::class,
        Electrical\Junctions::class,
        // Mechanical
        Mechanical\TravelStack::class,
        Mechanical\DriveForce::class,
        Mechanical\PowerDrop::class,
        Mechanical\InertiaRatio::class,
        Mechanical\ScrewSpeed::class,
        Mechanical\ScrewPreload::class,
        Mechanical\LostMotion::class,
        Mechanical\HandWheel::class,
        Mechanical\BeltDrive::class,
        Mechanical\GuideLoad::class,
        Mechanical\AirSupply::class,
        Mechanical\CutSpeed::class,
        Mechanical\CutterFit::class,
        Mechanical\MeltFlow::class,
        Mechanical\Interfaces::class,
        Mechanical\ShaftGrip::class,
        Mechanical\CutOut::class,
        Mechanical\ScrewFit::class,
        Mechanical\NamedClearance::class,
        Mechanical\BodyInBox::class,
        Mechanical\BeamBend::class,
        Mechanical\PrintedPartHeat::class,
        Mechanical\PrintRecipe::class,
        Mechanical\PrintConditions::class,
        Mechanical\FilamentEnough::class,
        Mechanical\PrintWeight::class,
        Mechanical\BatchWeight::class,
        Mechanical\PlateSize::class,
        Mechanical\SheetSurface::class,
        Mechanical\Rust::class,
        // Thermal
        Thermal\HeatUp::class,
        Thermal\WattDensity::class,
        Thermal\CutOff::class,
        Thermal\ZoneHeat::class,
        // Where it sits
        Layout\MeetsNothing::class,
        Layout\ReachFree::class,
        Layout\InOutline::class,
        Layout\WarmNeighbour::class,
        Layout\ChainLongEnough::class,
        Layout\LeadReaches::class,
        Layout\DuctsApart::class,
        // Site
        Site\RoomForIt::class,
        Site\Fumes::class,
        Site\Precautions::class,
        // Cost and supply
        Money\Budget::class,
        Scope\RivalClaims::class,
        Scope\Batches::class,
        Money\SmallParts::class,
        // Power-up and proving
        Commissioning\ReadingInBand::class,
    ];

    /**
     * @return list<Check>
     */
    public static function all(): array
    {
        return array_map(static fn (string $class): Check => new $class, self::ALL);
    }

    /** An inspector with every rule. */
    public static function inspector(): Inspector
    {
        static $inspector = null;

        return $inspector ??= new Inspector(self::all(), (new AsDrawn)->of(...));
    }
}
