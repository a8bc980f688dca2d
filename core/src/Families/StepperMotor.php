<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class StepperMotor extends Family
{
    public function key(): string
    {
        return 'stepper_motor';
    }

    public function title(): string
    {
        return 'stepper motor';
    }

    public function words(): array
    {
        return ['stepper motor', 'stepper', 'motor'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::Drives, Ability::Steps];
    }

    public function matched(): bool
    {
        return true;
    }

    public function measured(): array
    {
        return [Measured::PhaseResistance];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('frame', 'Frame', ['11', '14', '17', '23', '24', '34']),
            SpecField::quantity('rated_current', 'Rated current per phase, rms', Dimension::Current, 'A', [
                '0.1 A',
                '12 A',
            ]),
            SpecField::flag('current_is_peak', 'Rated current is stated as peak'),
            SpecField::quantity('holding_torque', 'Holding torque', Dimension::Torque, 'N m', [
                '5 mN m',
                '30 N m',
            ])->moreIsBetter(),
            SpecField::quantity('step_angle', 'Step angle', Dimension::Angle, '°', ['0.1 °', '15 °']),
            SpecField::quantity('phase_resistance', 'Phase resistance', Dimension::Resistance, 'Ω', [
                '0.05 Ω',
                '200 Ω',
            ]),
            SpecField::quantity('inductance', 'Phase inductance', Dimension::Inductance, 'mH', [
                '0.1 mH',
                '200 mH',
            ])->lessIsBetter(),
            SpecField::quantity('rotor_inertia', 'Rotor inertia', Dimension::Inertia, 'g cm²', [
                '1 g cm²',
                '10000 g cm²',
            ])->lessIsBetter(),
            SpecField::quantity('shaft_diameter', 'Shaft diameter', Dimension::Length, 'mm', ['2 mm', '25 mm']),
            SpecField::quantity('shaft_length', 'Shaft length', Dimension::Length, 'mm', ['2 mm', '150 mm']),
            SpecField::choice('shaft_form', 'Shaft form', ['round', 'flat', 'two flats', 'keyed']),
            SpecField::quantity('skin_temperature', 'Highest skin temperature', Dimension::Temperature, '°C', [
                '20 °C',
                '150 °C',
            ]),
            SpecField::note(
                'torque_curve',
                'Torque over speed',
                'Points of its curve, such as "0 rpm 1.2 N m; 600 rpm 0.8 N m".',
            ),
            SpecField::quantity('leads', 'Motor leads', Dimension::Ratio, '', ['4', '8']),
            SpecField::flag('brake', 'Holding brake'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [new Port('phases', PortKind::Phase, lends: ['rated_current' => 'rated_current'])];
    }

    public function ratios(): array
    {
        return [['holding_torque', 'mass'], ['holding_torque', 'price']];
    }
}
