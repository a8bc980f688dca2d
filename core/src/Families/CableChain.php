<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class CableChain extends Family
{
    public function key(): string
    {
        return 'cable_chain';
    }

    public function title(): string
    {
        return 'cable chain';
    }

    public function words(): array
    {
        return ['cable chain', 'drag chain', 'chain'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('inner_width', 'Inner width', Dimension::Length, 'mm', ['5 mm', '200 mm']),
            SpecField::quantity('inner_height', 'Inner height', Dimension::Length, 'mm', ['5 mm', '150 mm']),
            SpecField::quantity('bend_radius', 'Bend radius', Dimension::Length, 'mm', ['10 mm', '500 mm']),
            SpecField::quantity('length', 'Length', Dimension::Length, 'mm', ['50 mm', '10 m']),
        ];
    }

    public function abilities(): array
    {
        return [Ability::LeadsMove];
    }
}
