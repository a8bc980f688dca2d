<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Coupling extends Family
{
    public function key(): string
    {
        return 'coupling';
    }

    public function title(): string
    {
        return 'coupling';
    }

    public function words(): array
    {
        return ['coupling', 'coupler'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::JoinsShafts];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', ['rigid', 'jaw', 'beam', 'bellows']),
            SpecField::choice('grip', 'How it holds its shafts', ['clamp', 'set screws', 'keyway']),
            SpecField::quantity('bore_a', 'First bore', Dimension::Length, 'mm', ['2 mm', '60 mm']),
            SpecField::quantity('bore_b', 'Second bore', Dimension::Length, 'mm', ['2 mm', '60 mm']),
            SpecField::quantity('rated_torque', 'Rated torque', Dimension::Torque, 'N m', ['10 mN m', '500 N m']),
            SpecField::quantity('length', 'Length', Dimension::Length, 'mm', ['5 mm', '200 mm']),
        ];
    }

    public function sides(): array
    {
        return ['length', null, null];
    }
}
