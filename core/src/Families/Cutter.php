<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Cutter extends Family
{
    public function key(): string
    {
        return 'cutter';
    }

    public function title(): string
    {
        return 'cutter';
    }

    public function words(): array
    {
        return ['end mill', 'router bit', 'drill bit', 'cutter'];
    }

    public function trade(): Trade
    {
        return Trade::Workshop;
    }

    public function abilities(): array
    {
        return [Ability::Cuts, Ability::NotFitted];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', ['end mill', 'ball mill', 'V cutter', 'drill', 'engraver', 'surfacing']),
            SpecField::quantity('diameter', 'Cutting diameter', Dimension::Length, 'mm', ['0.1 mm', '80 mm']),
            SpecField::quantity('shank', 'Shank', Dimension::Length, 'mm', ['1 mm', '25 mm']),
            SpecField::quantity('flutes', 'Flutes', Dimension::Ratio, '', ['1', '12']),
            SpecField::quantity('cutting_length', 'Cutting length', Dimension::Length, 'mm', ['0.5 mm', '150 mm']),
            SpecField::quantity('length', 'Length over all', Dimension::Length, 'mm', ['10 mm', '250 mm']),
            SpecField::quantity('top_speed', 'Highest speed', Dimension::RotationalSpeed, 'rpm', [
                '1000 rpm',
                '100000 rpm',
            ]),
            SpecField::choice('material', 'Material', ['carbide', 'high-speed steel', 'diamond']),
        ];
    }

    public function account(): Account
    {
        return Account::Consumable;
    }
}
