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
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class MotorDriver extends Family
{
    public function key(): string
    {
        return 'motor_driver';
    }

    public function title(): string
    {
        return 'driver';
    }

    public function words(): array
    {
        return ['stepper motor driver', 'stepper driver', 'motor driver', 'driver'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Hurts, Ability::Electronic, Ability::FeedsPhases];
    }

    public function hazard(): Hazard
    {
        return Hazard::Motion;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('min_voltage', 'Lowest supply voltage', Dimension::Voltage, 'V', ['3 V', '80 V']),
            SpecField::quantity('max_voltage', 'Highest supply voltage', Dimension::Voltage, 'V', [
                '3 V',
                '120 V',
            ])->moreIsBetter(),
            SpecField::quantity('continuous_current', 'Continuous phase current, rms', Dimension::Current, 'A', [
                '0.1 A',
                '20 A',
            ])->moreIsBetter(),
            SpecField::quantity('bare_current', 'Continuous without heat sink, rms', Dimension::Current, 'A', [
                '0.1 A',
                '20 A',
            ])->moreIsBetter(),
            SpecField::quantity('set_current', 'Set phase current, rms', Dimension::Current, 'A', ['0.1 A', '20 A']),
            SpecField::quantity(
                'supply_current',
                'Current it takes from its supply',
                Dimension::Current,
                'A',
                ['10 mA', '20 A'],
                'Measured at speed, if you can.',
            ),
            SpecField::quantity('microsteps', 'Microsteps', Dimension::Ratio, '', ['1', '256']),
            SpecField::flag('heat_sink', 'Heat sink fitted'),
            SpecField::quantity('signal_voltage', 'Step and direction level', Dimension::Voltage, 'V', ['3 V', '24 V']),
            SpecField::choice('mode', 'Mode', ['step and direction', 'serial', 'bus']),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'power',
                PortKind::Inlet,
                draw: Draw::Driver,
                lends: ['min_voltage' => 'min_voltage', 'max_voltage' => 'max_voltage'],
            ),
            new Port('motor', PortKind::Phase, lends: ['rated_current' => 'continuous_current']),
            new Port('control', PortKind::Signal),
            new Port('enable', PortKind::Signal),
            new Port('fault', PortKind::Signal),
        ];
    }

    public function alwaysOn(): bool
    {
        return true;
    }

    public function ratios(): array
    {
        return [['continuous_current', 'price']];
    }

    public function channels(Part $part): array
    {
        return ['motor'];
    }

    public function hosts(): array
    {
        return ['controller_board', 'bus_module'];
    }
}
