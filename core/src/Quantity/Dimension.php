<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity;

/**
 * What a quantity measures. Torque and energy share their exponents but are never confused on a spec sheet.
 */
enum Dimension: string
{
    case Ratio = 'ratio';
    case Voltage = 'voltage';
    case Current = 'current';
    case Power = 'power';
    case Resistance = 'resistance';
    case LineResistance = 'line_resistance';
    case Inductance = 'inductance';
    case Capacitance = 'capacitance';
    case Charge = 'charge';
    case Energy = 'energy';
    case Length = 'length';
    case Area = 'area';
    case Volume = 'volume';
    case SecondMoment = 'second_moment';
    case Mass = 'mass';
    case Density = 'density';
    case Time = 'time';
    case Frequency = 'frequency';
    case RotationalSpeed = 'rotational_speed';
    case Temperature = 'temperature';
    case TemperatureDifference = 'temperature_difference';
    case TemperatureCoefficient = 'temperature_coefficient';
    case ThermalResistance = 'thermal_resistance';
    case Torque = 'torque';
    case Force = 'force';
    case Inertia = 'inertia';
    case Speed = 'speed';
    case Acceleration = 'acceleration';
    case Pressure = 'pressure';
    case Flow = 'flow';
    case Angle = 'angle';
    /** A product on the way to something else, such as V². */
    case Derived = 'derived';

    /**
     * Exponents of kilogram, metre, second, ampere and kelvin, packed as "kg,m,s,A,K".
     */
    public function exponents(): string
    {
        return match ($this) {
            self::Ratio, self::Angle, self::Derived => '0,0,0,0,0',
            self::Voltage => '1,2,-3,-1,0',
            self::Current => '0,0,0,1,0',
            self::Power => '1,2,-3,0,0',
            self::Resistance => '1,2,-3,-2,0',
            self::LineResistance => '1,1,-3,-2,0',
            self::Inductance => '1,2,-2,-2,0',
            self::Capacitance => '-1,-2,4,2,0',
            self::Charge => '0,0,1,1,0',
            self::Energy, self::Torque => '1,2,-2,0,0',
            self::Length => '0,1,0,0,0',
            self::Area => '0,2,0,0,0',
            self::Volume => '0,3,0,0,0',
            self::SecondMoment => '0,4,0,0,0',
            self::Mass => '1,0,0,0,0',
            self::Density => '1,-3,0,0,0',
            self::Time => '0,0,1,0,0',
            self::Frequency, self::RotationalSpeed => '0,0,-1,0,0',
            self::Temperature, self::TemperatureDifference => '0,0,0,0,1',
            self::TemperatureCoefficient => '0,0,0,0,-1',
            self::ThermalResistance => '-1,-2,3,0,1',
            self::Force => '1,1,-2,0,0',
            self::Inertia => '1,2,0,0,0',
            self::Speed => '0,1,-1,0,0',
            self::Acceleration => '0,1,-2,0,0',
            self::Pressure => '1,-1,-2,0,0',
            self::Flow => '0,3,-1,0,0',
        };
    }

    /** The unit in which SI magnitudes of this dimension are held. */
    public function unit(): string
    {
        return match ($this) {
            self::Ratio, self::Derived => '',
            self::Voltage => 'V',
            self::Current => 'A',
            self::Power => 'W',
            self::Resistance => 'Ω',
            self::LineResistance => 'Ω/m',
            self::Inductance => 'H',
            self::Capacitance => 'F',
            self::Charge => 'C',
            self::Energy => 'J',
            self::Length => 'm',
            self::Area => 'm²',
            self::Volume => 'm³',
            self::SecondMoment => 'm⁴',
            self::Mass => 'kg',
            self::Density => 'kg/m³',
            self::Time => 's',
            self::Frequency => 'Hz',
            self::RotationalSpeed => 'rev/s',
            self::Temperature, self::TemperatureDifference => 'K',
            self::TemperatureCoefficient => '1/K',
            self::ThermalResistance => 'K/W',
            self::Torque => 'N m',
            self::Force => 'N',
            self::Inertia => 'kg m²',
            self::Speed => 'm/s',
            self::Acceleration => 'm/s²',
            self::Pressure => 'Pa',
            self::Flow => 'm³/s',
            self::Angle => 'rad',
        };
    }

    public function label(): string
    {
        return str_replace('_', ' ', $this->value);
    }

    /** With its article: "a voltage", "an area". */
    public function withArticle(): string
    {
        return (preg_match('/^[aeiou]/', $this->value) === 1 ? 'an ' : 'a ').$this->label();
    }

    public static function ofExponents(string $exponents): self
    {
        static $known = null;
        if ($known === null) {
            $known = [];
            foreach (self::cases() as $case) {
                $known[$case->exponents()] ??= $case;
            }
        }

        return $known[$exponents] ?? self::Derived;
    }
}
