<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Panel extends Family
{
    public function key(): string
    {
        return 'panel';
    }

    public function title(): string
    {
        return 'panel';
    }

    public function words(): array
    {
        return ['panel', 'door'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::Covers];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('material', 'Material', [
                'acrylic',
                'polycarbonate',
                'aluminium',
                'plywood',
                'composite',
                'steel',
            ]),
            SpecField::quantity('length', 'Length', Dimension::Length, 'mm', ['20 mm', '3 m']),
            SpecField::quantity('width', 'Width', Dimension::Length, 'mm', ['20 mm', '3 m']),
            SpecField::quantity('thickness', 'Thickness', Dimension::Length, 'mm', ['0.5 mm', '50 mm']),
            SpecField::quantity('heat_limit', 'Highest temperature', Dimension::Temperature, '°C', ['40 °C', '300 °C']),
            SpecField::note(
                'cut_outs',
                'Cut-outs',
                'A cut-out taken from a listing is not to be trusted until the part is measured.',
            ),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'g', ['1 g', '60 kg'])->lessIsBetter(),
        ];
    }

    public function sides(): array
    {
        return ['length', 'width', 'thickness'];
    }
}
