<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Plate extends Family
{
    public function key(): string
    {
        return 'plate';
    }

    public function title(): string
    {
        return 'plate or bracket';
    }

    public function words(): array
    {
        return ['plate', 'bracket', 'sheet'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('material', 'Material', [
                'aluminium',
                'steel',
                'stainless steel',
                'brass',
                'glass',
                'plywood',
                'plastic',
            ]),
            SpecField::quantity('thickness', 'Thickness', Dimension::Length, 'mm', ['0.5 mm', '100 mm']),
            SpecField::quantity('width', 'Width', Dimension::Length, 'mm', ['5 mm', '3 m']),
            SpecField::quantity('depth', 'Depth', Dimension::Length, 'mm', ['5 mm', '3 m']),
            SpecField::quantity('hole_spacing', 'Spacing of its motor holes', Dimension::Length, 'mm', [
                '10 mm',
                '200 mm',
            ]),
            SpecField::quantity('pilot', 'Bore for the pilot of the motor', Dimension::Length, 'mm', [
                '10 mm',
                '150 mm',
            ]),
            SpecField::quantity('flatness', 'Flatness', Dimension::Length, 'mm', ['1 µm', '10 mm']),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'kg', ['1 g', '300 kg']),
        ];
    }

    public function sides(): array
    {
        return ['width', 'depth', 'thickness'];
    }
}
