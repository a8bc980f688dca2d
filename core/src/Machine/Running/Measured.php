<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Running;

use Magpie\Core\Quantity\Dimension;

/** What a reading measures. */
enum Measured: string
{
    case Bond = 'bond';
    case Insulation = 'insulation';
    case ColdResistance = 'cold_resistance';
    case PhaseResistance = 'phase_resistance';
    case SensorResistance = 'sensor_resistance';
    case OutputVoltage = 'output_voltage';
    case Voltage = 'voltage';
    case Current = 'current';
    case WallPower = 'wall_power';
    case Temperature = 'temperature';
    case HeatUp = 'heat_up';
    case Travel = 'travel';
    case Backlash = 'backlash';
    case RunOut = 'run_out';
    case TurningTorque = 'turning_torque';
    case PullingForce = 'pulling_force';
    case SpindleSpeed = 'spindle_speed';
    case BeltNote = 'belt_note';
    case Resonance = 'resonance';

    public function dimension(): Dimension
    {
        return match ($this) {
            self::Bond,
            self::Insulation,
            self::ColdResistance,
            self::PhaseResistance,
            self::SensorResistance => Dimension::Resistance,
            self::OutputVoltage, self::Voltage => Dimension::Voltage,
            self::Current => Dimension::Current,
            self::WallPower => Dimension::Power,
            self::Temperature => Dimension::Temperature,
            self::HeatUp => Dimension::Time,
            self::Travel, self::Backlash, self::RunOut => Dimension::Length,
            self::TurningTorque => Dimension::Torque,
            self::PullingForce => Dimension::Force,
            self::SpindleSpeed => Dimension::RotationalSpeed,
            self::BeltNote, self::Resonance => Dimension::Frequency,
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::Bond => 'earth bond',
            self::WallPower => 'power at the wall',
            self::HeatUp => 'time to heat up',
            self::RunOut => 'run-out',
            default => strtr($this->value, '_', ' '),
        };
    }

    /** The value of a part's sheet it stands in for; null where the sheet has none. */
    public function field(): ?string
    {
        return match ($this) {
            self::ColdResistance, self::PhaseResistance, self::OutputVoltage => $this->value,
            default => null,
        };
    }
}
