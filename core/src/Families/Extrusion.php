<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Extrusion extends Family
{
    public function key(): string
    {
        return 'extrusion';
    }

    public function title(): string
    {
        return 'extrusion';
    }

    public function words(): array
    {
        return ['extrusion', 'profile'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::Slotted];
    }

    public function sheet(): array
    {
        return [
            SpecField::note('profile', 'Profile'),
            SpecField::choice('material', 'Material', ['aluminium', 'steel'], 'Aluminium where it is not said.'),
            SpecField::quantity('length', 'Length', Dimension::Length, 'mm', ['10 mm', '6 m']),
            SpecField::quantity('slot', 'Slot width', Dimension::Length, 'mm', ['4 mm', '14 mm']),
            SpecField::quantity(
                'second_moment',
                'Second moment of area, as it is loaded',
                Dimension::SecondMoment,
                'mm⁴',
                ['100 mm⁴', '10000000 mm⁴'],
            )->moreIsBetter(),
            SpecField::quantity('line_mass', 'Mass', Dimension::Mass, 'kg', ['1 g', '100 kg']),
            SpecField::quantity('squareness', 'Ends cut square within', Dimension::Angle, '°', ['0.001 °', '5 °']),
        ];
    }

    public function sides(): array
    {
        return ['length', null, null];
    }
}
