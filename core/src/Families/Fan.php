<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Fan extends Family
{
    public function key(): string
    {
        return 'fan';
    }

    public function title(): string
    {
        return 'fan';
    }

    public function words(): array
    {
        return ['fan', 'blower'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Blows, Ability::Steady];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_voltage', 'Rated voltage', Dimension::Voltage, 'V', ['3 V', '250 V']),
            SpecField::quantity('min_voltage', 'Lowest voltage it starts at', Dimension::Voltage, 'V', [
                '3 V',
                '250 V',
            ]),
            SpecField::quantity('max_voltage', 'Highest voltage it stands', Dimension::Voltage, 'V', ['3 V', '264 V']),
            SpecField::quantity('rated_current', 'Rated current', Dimension::Current, 'A', ['10 mA', '5 A']),
            SpecField::choice('job', 'Job', ['hot end', 'part', 'board', 'cabinet', 'filter', 'spindle']),
            SpecField::quantity('flow', 'Free-air flow', Dimension::Flow, 'm³/h', [
                '0.5 m³/h',
                '500 m³/h',
            ])->moreIsBetter(),
            SpecField::quantity('pressure', 'Static pressure', Dimension::Pressure, 'Pa', ['1 Pa', '2 kPa']),
            SpecField::quantity('frame_size', 'Frame size', Dimension::Length, 'mm', ['10 mm', '250 mm']),
            SpecField::flag('speed_sense', 'Reports its speed'),
            SpecField::quantity(
                'cut_out',
                'Cut-out it needs',
                Dimension::Length,
                'mm',
                ['3 mm', '300 mm'],
                'Its longest side, or its diameter. Measure the part in hand before cutting.',
            ),
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
        ];
    }

    public function channels(Part $part): array
    {
        return ['fan'];
    }
}
