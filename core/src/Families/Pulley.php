<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Pulley extends Family
{
    public function key(): string
    {
        return 'pulley';
    }

    public function title(): string
    {
        return 'pulley or idler';
    }

    public function words(): array
    {
        return ['pulley', 'idler'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::CarriesBelt];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('teeth', 'Teeth', Dimension::Ratio, '', ['8', '200']),
            SpecField::quantity('pitch', 'Pitch', Dimension::Length, 'mm', ['1 mm', '14 mm']),
            SpecField::toothProfile(),
            SpecField::quantity('bore', 'Bore', Dimension::Length, 'mm', ['2 mm', '40 mm']),
            SpecField::quantity('width', 'Belt width', Dimension::Length, 'mm', ['3 mm', '100 mm']),
            SpecField::quantity('grub_screws', 'Grub screws', Dimension::Ratio, '', ['0', '6']),
            SpecField::flag('idler', 'Idler with bearings'),
        ];
    }
}
