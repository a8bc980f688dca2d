<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Wire extends Family
{
    public function key(): string
    {
        return 'wire';
    }

    public function title(): string
    {
        return 'wire';
    }

    public function words(): array
    {
        return ['wire', 'cable', 'awg'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::MakesLeads, Ability::BoughtAsItIs, Ability::NotFitted];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('size', 'Cross-section of one conductor', Dimension::Area, 'mm²', [
                '0.03 mm²',
                '50 mm²',
            ]),
            SpecField::quantity('length', 'Length on the reel', Dimension::Length, 'm', ['10 mm', '1 km']),
            SpecField::quantity('conductors', 'Conductors', Dimension::Ratio, '', ['1', '25']),
            SpecField::choice('stranding', 'Stranding', ['solid', 'stranded', 'fine']),
            SpecField::note('insulation', 'Insulation'),
            SpecField::quantity('voltage_rating', 'Insulation rated for', Dimension::Voltage, 'V', ['30 V', '1 kV']),
            SpecField::quantity('temperature_rating', 'Conductor temperature', Dimension::Temperature, '°C', [
                '50 °C',
                '250 °C',
            ]),
            SpecField::quantity('outer_diameter', 'Outer diameter', Dimension::Length, 'mm', ['0.3 mm', '30 mm']),
            SpecField::note('colour', 'Colour'),
            SpecField::flag('shielded', 'Shielded'),
        ];
    }
}
