<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Cabinet extends Family
{
    public function key(): string
    {
        return 'cabinet';
    }

    public function title(): string
    {
        return 'cabinet or panel';
    }

    public function words(): array
    {
        return ['cabinet', 'enclosure', 'electronics box'];
    }

    public function trade(): Trade
    {
        return Trade::Site;
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('material', 'Material', ['steel', 'aluminium', 'plywood', 'plastic', 'glass']),
            SpecField::quantity('width', 'Width', Dimension::Length, 'mm', ['20 mm', '4 m']),
            SpecField::quantity('height', 'Height', Dimension::Length, 'mm', ['20 mm', '4 m']),
            SpecField::quantity('depth', 'Depth', Dimension::Length, 'mm', ['1 mm', '4 m']),
            SpecField::flag('earthed', 'Earthed'),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'kg', ['1 g', '300 kg']),
        ];
    }

    public function sides(): array
    {
        return ['width', 'depth', 'height'];
    }

    public function abilities(): array
    {
        return [Ability::Encloses];
    }
}
