<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Bearing extends Family
{
    public function key(): string
    {
        return 'bearing';
    }

    public function title(): string
    {
        return 'bearing';
    }

    public function words(): array
    {
        return ['bearing'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::Rolls];
    }

    public function sheet(): array
    {
        return [
            SpecField::note('number', 'Bearing number'),
            SpecField::quantity('bore', 'Bore', Dimension::Length, 'mm', ['1 mm', '120 mm']),
            SpecField::quantity('outer_diameter', 'Outer diameter', Dimension::Length, 'mm', ['3 mm', '250 mm']),
            SpecField::quantity('width', 'Width', Dimension::Length, 'mm', ['1 mm', '80 mm']),
            SpecField::quantity('dynamic_load', 'Dynamic load rating', Dimension::Force, 'N', [
                '20 N',
                '500000 N',
            ])->moreIsBetter(),
            SpecField::quantity('static_load', 'Static load rating', Dimension::Force, 'N', [
                '10 N',
                '500000 N',
            ])->moreIsBetter(),
            SpecField::flag('sealed', 'Sealed'),
        ];
    }

    public function sides(): array
    {
        return ['outer_diameter', 'outer_diameter', 'width'];
    }
}
