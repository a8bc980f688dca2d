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

final class SwitchingModule extends Family
{
    public function key(): string
    {
        return 'switching_module';
    }

    public function title(): string
    {
        return 'switching module';
    }

    public function words(): array
    {
        return ['switching module', 'mosfet', 'solid-state relay', 'solid state relay', 'ssr'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Switches, Ability::Electronic, Ability::RatedByMaker];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', ['transistor', 'relay', 'AC solid-state', 'DC solid-state']),
            SpecField::quantity('rated_current', 'Rated current', Dimension::Current, 'A', [
                '0.1 A',
                '120 A',
            ])->moreIsBetter(),
            SpecField::quantity('min_voltage', 'Lowest load voltage', Dimension::Voltage, 'V', ['0 V', '480 V']),
            SpecField::quantity('max_voltage', 'Highest load voltage', Dimension::Voltage, 'V', ['3 V', '480 V']),
            SpecField::quantity('on_resistance', 'Resistance when on', Dimension::Resistance, 'mΩ', [
                '0.1 mΩ',
                '5 Ω',
            ])->lessIsBetter(),
            SpecField::quantity('control_min', 'Lowest control voltage', Dimension::Voltage, 'V', ['1.8 V', '48 V']),
            SpecField::quantity('control_max', 'Highest control voltage', Dimension::Voltage, 'V', ['1.8 V', '250 V']),
            SpecField::quantity('control_current', 'Control current', Dimension::Current, 'mA', ['0.1 mA', '500 mA']),
            SpecField::flag('polarity_free', 'Control input takes either polarity'),
            SpecField::quantity('contact_rating', 'Rating of its power terminal', Dimension::Current, 'A', [
                '0.5 A',
                '120 A',
            ]),
            SpecField::flag('heat_sink', 'Heat sink fitted'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'in',
                PortKind::Inlet,
                lends: [
                    'min_voltage' => 'min_voltage',
                    'max_voltage' => 'max_voltage',
                    'contact_rating' => 'contact_rating',
                ],
            ),
            new Port(
                'out',
                PortKind::Outlet,
                fedFrom: 'in',
                lends: [
                    'rated_current' => 'rated_current',
                    'resistance' => 'on_resistance',
                    'contact_rating' => 'contact_rating',
                ],
            ),
            new Port(
                'control',
                PortKind::Signal,
                lends: ['min_voltage' => 'control_min', 'max_voltage' => 'control_max'],
            ),
        ];
    }

    public function channels(Part $part): array
    {
        return ['signal', 'heater', 'fan'];
    }
}
