<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class BusModule extends Family
{
    public function key(): string
    {
        return 'bus_module';
    }

    public function title(): string
    {
        return 'tool-head board';
    }

    public function words(): array
    {
        return ['bus module', 'expansion board', 'tool board'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::HasChannels, Ability::WarmsByAllItTakes];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('min_voltage', 'Lowest supply voltage', Dimension::Voltage, 'V', ['3 V', '60 V']),
            SpecField::quantity('max_voltage', 'Highest supply voltage', Dimension::Voltage, 'V', ['3 V', '60 V']),
            SpecField::quantity('rated_current', 'Own current', Dimension::Current, 'A', ['0.01 A', '5 A']),
            SpecField::choice('link', 'Link to the main board', ['differential bus', 'serial line', 'separate wires']),
            SpecField::choice('support', 'The main board speaks to it', ['today', 'with other firmware', 'promised']),
            SpecField::quantity('drivers', 'Motor drivers on it', Dimension::Ratio, '', ['0', '4']),
            SpecField::quantity('heat_limit', 'Highest air temperature', Dimension::Temperature, '°C', [
                '40 °C',
                '125 °C',
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
                draw: Draw::Current,
                lends: [
                    'min_voltage' => 'min_voltage',
                    'max_voltage' => 'max_voltage',
                    'rated_current' => 'rated_current',
                ],
            ),
            new Port('link', PortKind::Signal),
        ];
    }

    public function alwaysOn(): bool
    {
        return true;
    }

    public function heatLimit(): string
    {
        return 'heat_limit';
    }
}
