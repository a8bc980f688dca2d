<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Heater extends Family
{
    public function key(): string
    {
        return 'heater';
    }

    public function title(): string
    {
        return 'heater';
    }

    public function words(): array
    {
        return ['heater', 'cartridge', 'heated bed', 'silicone mat'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Hurts, Ability::Heats];
    }

    public function hazard(): Hazard
    {
        return Hazard::Heat;
    }

    public function measured(): array
    {
        return [Measured::ColdResistance];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_power', 'Rated power', Dimension::Power, 'W', ['10 W', '5 kW']),
            SpecField::quantity('rated_voltage', 'Rated voltage', Dimension::Voltage, 'V', ['3 V', '480 V']),
            SpecField::quantity('min_voltage', 'Lowest voltage that still does the job', Dimension::Voltage, 'V', [
                '3 V',
                '480 V',
            ]),
            SpecField::quantity('max_voltage', 'Highest voltage it stands', Dimension::Voltage, 'V', ['3 V', '480 V']),
            SpecField::quantity('cold_resistance', 'Resistance when cold', Dimension::Resistance, 'Ω', [
                '0.1 Ω',
                '2 kΩ',
            ]),
            SpecField::choice('place', 'Where it heats', ['bed', 'hot end', 'chamber', 'other']),
            SpecField::quantity('heated_width', 'Heated width', Dimension::Length, 'mm', ['5 mm', '2 m']),
            SpecField::quantity('heated_depth', 'Heated depth', Dimension::Length, 'mm', ['5 mm', '2 m']),
            SpecField::quantity('target', 'Hottest it is set to', Dimension::Temperature, '°C', ['30 °C', '450 °C']),
            SpecField::quantity('material_limit', 'What its material stands', Dimension::Temperature, '°C', [
                '50 °C',
                '500 °C',
            ]),
            SpecField::quantity('plate_mass', 'Mass of the plate it heats', Dimension::Mass, 'kg', ['10 g', '50 kg']),
            SpecField::choice('plate_material', 'Material of that plate', ['aluminium', 'steel', 'glass']),
            SpecField::quantity('thermal_fuse', 'Thermal fuse opens at', Dimension::Temperature, '°C', [
                '50 °C',
                '400 °C',
            ]),
            SpecField::flag('earthed', 'Its plate is earthed'),
            SpecField::quantity('contact_rating', 'Rating of one contact of its plug', Dimension::Current, 'A', [
                '0.5 A',
                '60 A',
            ]),
            SpecField::quantity('contacts_per_pole', 'Contacts per pole of its plug', Dimension::Ratio, '', [
                '1',
                '12',
            ]),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'power',
                PortKind::Inlet,
                draw: Draw::Resistive,
                lends: [
                    'min_voltage' => 'min_voltage',
                    'max_voltage' => 'max_voltage',
                    'contact_rating' => 'contact_rating',
                    'contacts_per_pole' => 'contacts_per_pole',
                ],
            ),
            new Port('earth', PortKind::Earth, mains: true),
        ];
    }

    public function channels(Part $part): array
    {
        return ['heater'];
    }

    public function hosts(): array
    {
        return ['hot_end'];
    }
}
