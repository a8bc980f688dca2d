<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Insert extends Family
{
    public function key(): string
    {
        return 'insert';
    }

    public function title(): string
    {
        return 'insert or washer';
    }

    public function words(): array
    {
        return ['threaded insert', 'heat-set insert', 'insert'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::GetsLost, Ability::TakesScrew, Ability::Fastens, Ability::MeltedIn];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', [
                'heat-set insert',
                'press insert',
                'washer',
                'spring washer',
                'shim',
                'spacer',
            ]),
            SpecField::choice('thread', 'Thread', ['M2', 'M2.5', 'M3', 'M4', 'M5', 'M6', 'M8', 'M10', 'M12']),
            SpecField::quantity('length', 'Length or thickness', Dimension::Length, 'mm', ['0.05 mm', '100 mm']),
            SpecField::quantity('outer_diameter', 'Outer diameter', Dimension::Length, 'mm', ['2 mm', '60 mm']),
            SpecField::choice('material', 'Material', ['brass', 'steel', 'stainless steel', 'aluminium', 'nylon']),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'g', ['0.01 g', '500 g']),
        ];
    }
}
