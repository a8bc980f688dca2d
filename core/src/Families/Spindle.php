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

final class Spindle extends Family
{
    public function key(): string
    {
        return 'spindle';
    }

    public function title(): string
    {
        return 'spindle';
    }

    public function words(): array
    {
        return ['spindle'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::Hurts, Ability::Overloads, Ability::Spins];
    }

    public function hazard(): Hazard
    {
        return Hazard::Spindle;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity(
                'rated_power',
                'Rated power',
                Dimension::Power,
                'W',
                ['20 W', '5 kW'],
                'Power at the shaft; the supply gives more.',
            )->moreIsBetter(),
            SpecField::quantity('rated_voltage', 'Rated voltage', Dimension::Voltage, 'V', ['12 V', '480 V']),
            SpecField::quantity('min_voltage', 'Lowest supply voltage', Dimension::Voltage, 'V', ['3 V', '480 V']),
            SpecField::quantity('max_voltage', 'Highest supply voltage', Dimension::Voltage, 'V', ['12 V', '480 V']),
            SpecField::quantity('efficiency', 'Efficiency', Dimension::Ratio, '%', ['30 %', '95 %'])->moreIsBetter(),
            SpecField::quantity('top_speed', 'Highest speed', Dimension::RotationalSpeed, 'rpm', [
                '1000 rpm',
                '60000 rpm',
            ])->moreIsBetter(),
            SpecField::quantity('lowest_speed', 'Lowest usable speed', Dimension::RotationalSpeed, 'rpm', [
                '100 rpm',
                '30000 rpm',
            ])->lessIsBetter(),
            SpecField::quantity('rated_current', 'Rated phase current', Dimension::Current, 'A', ['0.5 A', '40 A']),
            SpecField::quantity('rated_frequency', 'Rated frequency', Dimension::Frequency, 'Hz', ['50 Hz', '2000 Hz']),
            SpecField::quantity('poles', 'Poles', Dimension::Ratio, '', ['2', '12']),
            SpecField::quantity('collet_largest', 'Largest shank it holds', Dimension::Length, 'mm', ['1 mm', '25 mm']),
            SpecField::note('collet', 'Collet size'),
            SpecField::quantity('runout', 'Run-out', Dimension::Length, 'µm', ['0.1 µm', '1 mm'])->lessIsBetter(),
            SpecField::choice('cooling', 'Cooling', ['air', 'water', 'own fan']),
            SpecField::quantity('clamp_diameter', 'Clamp diameter', Dimension::Length, 'mm', ['20 mm', '125 mm']),
            SpecField::quantity('skin_temperature', 'Highest skin temperature', Dimension::Temperature, '°C', [
                '20 °C',
                '150 °C',
            ])->lessIsBetter(),
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
            new Port('earth', PortKind::Earth, mains: true),
        ];
    }

    public function ratios(): array
    {
        return [['rated_power', 'price'], ['rated_power', 'mass']];
    }
}
