<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Families;

/**
 * The families known here, found by key. A new family is one file in Families/ and one line below.
 */
final class Catalogue
{
    private const STANDARD = [
        'arc_source' => Families\ArcSource::class,
        'bearing' => Families\Bearing::class,
        'belt' => Families\Belt::class,
        'build_sheet' => Families\BuildSheet::class,
        'bus_module' => Families\ToolHeadBoard::class,
        'cabinet' => Families\Cabinet::class,
        'cable_chain' => Families\CableChain::class,
        'consumable' => Families\Consumable::class,
        'contact_housing' => Families\ContactHousing::class,
        'controller_board' => Families\ControllerBoard::class,
        'coupling' => Families\Coupling::class,
        'cutter' => Families\Cutter::class,
        'dc_converter' => Families\DcConverter::class,
        'display' => Families\Display::class,
        'drive_screw' => Families\DriveScrew::class,
        'extruder' => Families\Extruder::class,
        'extrusion' => Families\Extrusion::class,
        'fan' => Families\Fan::class,
        'filament' => Families\Filament::class,
        'fuse' => Families\Fuse::class,
        'heater' => Families\Heater::class,
        'host_computer' => Families\HostComputer::class,
        'hot_end' => Families\HotEnd::class,
        'insert' => Families\Insert::class,
        'lamp' => Families\Lamp::class,
        'limit_switch' => Families\LimitSwitch::class,
        'linear_rail' => Families\LinearRail::class,
        'mains_inlet' => Families\MainsInlet::class,
        'motor_driver' => Families\MotorDriver::class,
        'nut' => Families\Nut::class,
        'panel' => Families\Panel::class,
        'plate' => Families\Plate::class,
        'power_supply' => Families\PowerSupply::class,
        'printed_part' => Families\PrintedPart::class,
        'probe' => Families\Probe::class,
        'pulley' => Families\Pulley::class,
        'relay' => Families\Relay::class,
        'screw' => Families\Screw::class,
        'sensor' => Families\Sensor::class,
        'servo_motor' => Families\ServoMotor::class,
        'spindle' => Families\Spindle::class,
        'spindle_drive' => Families\SpindleDrive::class,
        'stepper_motor' => Families\StepperMotor::class,
        'stop_button' => Families\StopButton::class,
        'switching_module' => Families\SwitchingModule::class,
        'thermistor' => Families\Thermistor::class,
        'tool' => Families\Tool::class,
        'wire' => Families\Wire::class,
    ];

    /** @var array<string, Family> made when first asked for */
    private array $made = [];

    /**
     * @param  array<string, class-string<Family>>  $families  by key
     */
    public function __construct(private readonly array $families)
    {
    }

    public static function standard(): self
    {
        static $standard = null;

        return $standard ??= new self(self::STANDARD);
    }

    public function find(string $key): ?Family
    {
        $class = $this->families[$key] ?? null;

        return $class === null ? null : ($this->made[$key] ??= new $class);
    }

    /**
     * @return array<string, Family>
     */
    public function all(): array
    {
        $all = [];
        foreach (array_keys($this->families) as $key) {
            $all[$key] = $this->find($key) ?? throw new \LogicException("There is no family {$key}.");
        }

        return $all;
    }
}
