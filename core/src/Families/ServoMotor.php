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

final class ServoMotor extends Family
{
    public function key(): string
    {
        return 'servo_motor';
    }

    public function title(): string
    {
        return 'servo motor';
    }

    public function words(): array
    {
        return ['servo motor', 'servo'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::Hurts, Ability::Drives];
    }

    public function hazard(): Hazard
    {
        return Hazard::Motion;
    }

    public function matched(): bool
    {
        return true;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_power', 'Rated power', Dimension::Power, 'W', ['10 W', '5 kW']),
            SpecField::quantity('rated_voltage', 'Rated voltage', Dimension::Voltage, 'V', ['12 V', '480 V']),
            SpecField::quantity('min_voltage', 'Lowest supply voltage', Dimension::Voltage, 'V', ['12 V', '480 V']),
            SpecField::quantity('max_voltage', 'Highest supply voltage', Dimension::Voltage, 'V', ['12 V', '480 V']),
            SpecField::quantity('rated_torque', 'Rated torque', Dimension::Torque, 'N m', [
                '10 mN m',
                '50 N m',
            ])->moreIsBetter(),
            SpecField::quantity('peak_torque', 'Peak torque', Dimension::Torque, 'N m', [
                '10 mN m',
                '150 N m',
            ])->moreIsBetter(),
            SpecField::quantity('rated_speed', 'Rated speed', Dimension::RotationalSpeed, 'rpm', [
                '100 rpm',
                '10000 rpm',
            ]),
            SpecField::quantity('rotor_inertia', 'Rotor inertia', Dimension::Inertia, 'g cm²', [
                '1 g cm²',
                '50000 g cm²',
            ])->lessIsBetter(),
            SpecField::note(
                'torque_curve',
                'Torque over speed',
                'Points of its curve, such as "0 rpm 1.2 N m; 3000 rpm 0.9 N m".',
            ),
            SpecField::quantity('inertia_limit', 'Largest load inertia, times its own', Dimension::Ratio, '', [
                '1',
                '60',
            ]),
            SpecField::note('encoder', 'Encoder'),
            SpecField::quantity(
                'pulses_per_turn',
                'Pulses for one turn, as set',
                Dimension::Ratio,
                '',
                ['100', '10000000'],
                'Counts of its encoder over the electronic gear in its drive.',
            ),
            SpecField::quantity('shaft_diameter', 'Shaft diameter', Dimension::Length, 'mm', ['2 mm', '40 mm']),
            SpecField::choice('shaft_form', 'Shaft form', ['round', 'flat', 'two flats', 'keyed']),
            SpecField::flag('brake', 'Holding brake'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'power',
                PortKind::Inlet,
                draw: Draw::Power,
                lends: ['min_voltage' => 'min_voltage', 'max_voltage' => 'max_voltage'],
            ),
            new Port('control', PortKind::Signal),
        ];
    }

    public function ratios(): array
    {
        return [['rated_torque', 'mass']];
    }

    public function channels(Part $part): array
    {
        return ['motor'];
    }
}
