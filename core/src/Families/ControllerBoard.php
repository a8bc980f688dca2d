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

final class ControllerBoard extends Family
{
    public function key(): string
    {
        return 'controller_board';
    }

    public function title(): string
    {
        return 'board';
    }

    public function words(): array
    {
        return ['controller', 'mainboard', 'main board', 'board'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::HasChannels, Ability::Electronic, Ability::WarmsByAllItTakes, Ability::Commands];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('own_current', 'Current for itself', Dimension::Current, 'A', ['10 mA', '5 A']),
            SpecField::quantity('min_voltage', 'Lowest supply voltage', Dimension::Voltage, 'V', ['3 V', '60 V']),
            SpecField::quantity(
                'max_voltage',
                'Highest supply voltage, by its weakest part',
                Dimension::Voltage,
                'V',
                ['3 V', '100 V'],
                'Capacitors and converters on the rail count.',
            ),
            SpecField::quantity('input_terminal_rating', 'Rating of its power terminal', Dimension::Current, 'A', [
                '1 A',
                '60 A',
            ]),
            SpecField::quantity('input_fuse', 'Fuse on its power input', Dimension::Current, 'A', ['1 A', '60 A']),
            SpecField::choice('fuse_kind', 'Kind of fuse on its input', ['blade', 'glass', 'ceramic', 'resettable']),
            SpecField::quantity('logic_voltage', 'Logic level', Dimension::Voltage, 'V', ['1.8 V', '5 V']),
            SpecField::quantity('driver_slots', 'Driver slots', Dimension::Ratio, '', ['0', '16']),
            SpecField::quantity('heater_outputs', 'Heater outputs', Dimension::Ratio, '', ['0', '16']),
            SpecField::quantity('fan_outputs', 'Fan outputs', Dimension::Ratio, '', ['0', '24']),
            SpecField::quantity('thermistor_inputs', 'Thermistor inputs', Dimension::Ratio, '', ['0', '16']),
            SpecField::quantity('switch_inputs', 'Switch inputs', Dimension::Ratio, '', ['0', '32']),
            SpecField::quantity('step_rate', 'Highest step rate', Dimension::Frequency, 'kHz', ['1 kHz', '10 MHz']),
            SpecField::note('firmware', 'Firmware and revision'),
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
                    'rated_current' => 'own_current',
                    'contact_rating' => 'input_terminal_rating',
                    'fuse_rating' => 'input_fuse',
                ],
            ),
        ];
    }

    public function alwaysOn(): bool
    {
        return true;
    }
}
