<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Screw extends Family
{
    public function key(): string
    {
        return 'screw';
    }

    public function title(): string
    {
        return 'screw';
    }

    public function words(): array
    {
        return ['screw', 'bolt'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::GetsLost, Ability::Rusts, Ability::Screws, Ability::Fastens];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('thread', 'Thread', ['M2', 'M2.5', 'M3', 'M4', 'M5', 'M6', 'M8', 'M10', 'M12']),
            SpecField::quantity('length', 'Length under the head', Dimension::Length, 'mm', ['2 mm', '300 mm']),
            SpecField::choice('head', 'Head', ['cap', 'button', 'countersunk', 'hexagon', 'grub']),
            SpecField::choice('grade', 'Property class', ['8.8', '10.9', '12.9', 'A2-70']),
            SpecField::note('coating', 'Finish'),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'g', ['0.05 g', '2 kg']),
        ];
    }
}
