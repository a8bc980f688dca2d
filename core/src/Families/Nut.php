<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Nut extends Family
{
    public function key(): string
    {
        return 'nut';
    }

    public function title(): string
    {
        return 'nut or insert';
    }

    public function words(): array
    {
        return ['nut'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::GetsLost, Ability::TakesScrew, Ability::Fastens];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('thread', 'Thread', ['M2', 'M2.5', 'M3', 'M4', 'M5', 'M6', 'M8', 'M10', 'M12']),
            SpecField::choice('kind', 'Kind', ['hexagon', 'locking', 'slot nut', 'heat-set insert', 'square']),
            SpecField::quantity('height', 'Height', Dimension::Length, 'mm', ['1 mm', '50 mm']),
            SpecField::quantity('slot', 'Slot it fits', Dimension::Length, 'mm', ['4 mm', '14 mm']),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'g', ['0.05 g', '1 kg']),
        ];
    }
}
