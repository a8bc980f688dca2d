<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Belt extends Family
{
    public function key(): string
    {
        return 'belt';
    }

    public function title(): string
    {
        return 'belt';
    }

    public function words(): array
    {
        return ['belt'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::RunsOnTeeth];
    }

    public function matched(): bool
    {
        return true;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('pitch', 'Pitch', Dimension::Length, 'mm', ['1 mm', '14 mm']),
            SpecField::toothProfile(),
            SpecField::quantity('width', 'Width', Dimension::Length, 'mm', ['3 mm', '100 mm']),
            SpecField::quantity('length', 'Length', Dimension::Length, 'mm', ['50 mm', '100 m']),
            SpecField::note('core', 'Core'),
            SpecField::flag('closed', 'Closed loop'),
        ];
    }
}
