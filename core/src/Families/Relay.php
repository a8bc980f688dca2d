<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Relay extends Family
{
    public function key(): string
    {
        return 'relay';
    }

    public function title(): string
    {
        return 'relay';
    }

    public function words(): array
    {
        return ['safety relay', 'contactor', 'relay'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Switches, Ability::RatedByMaker, Ability::HasCoil, Ability::Interrupts];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', [
                'mechanical',
                'solid state, AC',
                'solid state, DC',
                'contactor',
                'safety',
            ]),
            SpecField::quantity('coil_voltage', 'Coil voltage', Dimension::Voltage, 'V', ['3 V', '240 V']),
            SpecField::quantity('coil_current', 'Coil current', Dimension::Current, 'mA', ['1 mA', '1 A']),
            SpecField::quantity('contact_rating', 'Contact rating', Dimension::Current, 'A', [
                '0.5 A',
                '100 A',
            ])->moreIsBetter(),
            SpecField::quantity('max_voltage', 'Highest switched voltage', Dimension::Voltage, 'V', ['5 V', '690 V']),
            SpecField::quantity('dc_voltage', 'Highest direct voltage it breaks', Dimension::Voltage, 'V', [
                '5 V',
                '1 kV',
            ]),
            SpecField::choice('normally', 'Contact at rest', ['open', 'closed', 'change-over']),
            SpecField::quantity('leakage', 'Leakage when off', Dimension::Current, 'mA', [
                '0 mA',
                '50 mA',
            ])->lessIsBetter(),
            SpecField::quantity('on_resistance', 'Resistance when on', Dimension::Resistance, 'mΩ', [
                '0.1 mΩ',
                '5 Ω',
            ])->lessIsBetter(),
            SpecField::flag('heat_sink', 'Heat sink fitted'),
            SpecField::flag('positive_opening', 'Positive-opening contacts'),
            SpecField::flag('holds_itself', 'Holds itself in; once dropped it waits for its start button'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port('coil', PortKind::Signal),
            new Port(
                'in',
                PortKind::Inlet,
                lends: ['max_voltage' => 'max_voltage', 'contact_rating' => 'contact_rating'],
            ),
            new Port(
                'out',
                PortKind::Outlet,
                fedFrom: 'in',
                lends: [
                    'rated_current' => 'contact_rating',
                    'contact_rating' => 'contact_rating',
                    'resistance' => 'on_resistance',
                ],
            ),
        ];
    }

    public function channels(Part $part): array
    {
        return ['signal', 'heater', 'fan'];
    }
}
