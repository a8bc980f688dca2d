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
        Families\Bearing::class,
        Families\Belt::class,
        Families\Cabinet::class,
        Families\CableChain::class,
        Families\Consumable::class,
        Families\ContactHousing::class,
        Families\ControllerBoard::class,
        Families\Coupling::class,
        Families\DcConverter::class,
        Families\Display::class,
        Families\DriveScrew::class,
        Families\Extrusion::class,
        Families\Fan::class,
        Families\Filament::class,
        Families\Fuse::class,
        Families\Heater::class,
        Families\HostComputer::class,
        Families\Lamp::class,
        Families\LinearRail::class,
        Families\MainsInlet::class,
        Families\MotorDriver::class,
        Families\Nut::class,
        Families\Plate::class,
        Families\PowerSupply::class,
        Families\PrintedPart::class,
        Families\Pulley::class,
        Families\Screw::class,
        Families\Sensor::class,
        Families\ServoMotor::class,
        Families\Spindle::class,
        Families\StepperMotor::class,
        Families\StopButton::class,
        Families\SwitchingModule::class,
        Families\Thermistor::class,
        Families\Tool::class,
        Families\Wire::class,
    ];

    /** @var array<string, Family> */
    private array $families = [];

    /**
     * @param  list<Family>  $families
     */
    public function __construct(array $families)
    {
        foreach ($families as $family) {
            $this->families[$family->key()] = $family;
        }
    }

    public static function standard(): self
    {
        static $standard = null;

        return $standard ??= new self(array_map(static fn (string $class): Family => new $class, self::STANDARD));
    }

    public function find(string $key): ?Family
    {
        return $this->families[$key] ?? null;
    }

    /**
     * @return array<string, Family>
     */
    public function all(): array
    {
        return $this->families;
    }
}
