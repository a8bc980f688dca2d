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

/** Gives a torch, a blast or a tool its air. */
final class Compressor extends Family
{
    public function key(): string
    {
        return 'compressor';
    }

    public function title(): string
    {
        return 'compressor';
    }

    public function words(): array
    {
        return ['compressor'];
    }

    public function trade(): Trade
    {
        return Trade::Workshop;
    }

    public function abilities(): array
    {
        return [Ability::Overloads, Ability::Compresses, Ability::NotFitted];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity(
                'flow',
                'Air it gives for long',
                Dimension::Flow,
                'L/min',
                ['10 L/min', '1000 L/min'],
                'Free air delivered at working pressure, not the displacement on the label.',
            )->moreIsBetter(),
            SpecField::quantity('pressure', 'Highest pressure', Dimension::Pressure, 'bar', ['2 bar', '15 bar']),
            SpecField::quantity('tank', 'Tank', Dimension::Volume, 'L', ['1 L', '500 L'])->moreIsBetter(),
            SpecField::flag('dried', 'Dries and filters its air'),
            SpecField::quantity('rated_power', 'Input power', Dimension::Power, 'kW', ['100 W', '10 kW']),
            SpecField::quantity('rated_voltage', 'Mains voltage', Dimension::Voltage, 'V', ['100 V', '480 V']),
            SpecField::quantity('noise', 'Noise', Dimension::Ratio, '', ['30', '120'], 'In dB(A) at a metre.'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port('mains', PortKind::Inlet, mains: true, draw: Draw::Power),
            new Port('earth', PortKind::Earth, mains: true),
        ];
    }
}
