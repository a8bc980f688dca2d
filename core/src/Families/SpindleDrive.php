<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class SpindleDrive extends Family
{
    public function key(): string
    {
        return 'spindle_drive';
    }

    public function title(): string
    {
        return 'spindle drive';
    }

    public function words(): array
    {
        return ['spindle drive', 'spindle inverter', 'inverter', 'frequency converter', 'frequency drive', 'vfd'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Hurts, Ability::Electronic, Ability::SetsSpeed, Ability::Disturbs];
    }

    public function hazard(): Hazard
    {
        return Hazard::Spindle;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_power', 'Rated motor power', Dimension::Power, 'W', ['50 W', '10 kW']),
            SpecField::quantity('rated_voltage', 'Mains voltage', Dimension::Voltage, 'V', ['100 V', '480 V']),
            SpecField::quantity('output_current', 'Output current', Dimension::Current, 'A', [
                '0.5 A',
                '40 A',
            ])->moreIsBetter(),
            SpecField::quantity('efficiency', 'Efficiency', Dimension::Ratio, '%', ['60 %', '99 %'])->moreIsBetter(),
            SpecField::quantity('power_factor', 'Power factor', Dimension::Ratio, '', ['0.4', '1'])->moreIsBetter(),
            SpecField::quantity('top_frequency', 'Highest output frequency', Dimension::Frequency, 'Hz', [
                '50 Hz',
                '2000 Hz',
            ]),
            SpecField::choice('input_phases', 'Mains phases', ['single', 'three']),
            SpecField::choice('speed_command', 'Speed is set by', ['knob', '0 to 10 V', 'pulse width', 'serial line']),
            SpecField::flag('filter', 'Mains filter fitted'),
            SpecField::flag('reverse_lock', 'Reverse can be locked out'),
            SpecField::quantity(
                'discharge_time',
                'Wait after switching off',
                Dimension::Time,
                'min',
                ['0 min', '30 min'],
                'Its capacitors stay charged for so long.',
            ),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port('mains', PortKind::Inlet, mains: true, draw: Draw::Power),
            new Port('motor', PortKind::Phase, mains: true),
            new Port('earth', PortKind::Earth, mains: true),
            new Port('run', PortKind::Signal),
        ];
    }
}
