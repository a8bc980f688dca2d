<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class BuildSheet extends Family
{
    public function key(): string
    {
        return 'build_sheet';
    }

    public function title(): string
    {
        return 'build sheet';
    }

    public function words(): array
    {
        return ['build sheet', 'print sheet', 'print surface', 'spring steel sheet'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::CarriesPrints];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('length', 'Length', Dimension::Length, 'mm', ['50 mm', '1.5 m']),
            SpecField::quantity('width', 'Width', Dimension::Length, 'mm', ['50 mm', '1.5 m']),
            SpecField::quantity('thickness', 'Thickness', Dimension::Length, 'mm', ['0.1 mm', '10 mm']),
            SpecField::choice('material', 'Material', ['spring steel', 'glass', 'composite', 'aluminium']),
            SpecField::choice('surface', 'Surface', ['smooth', 'textured', 'bare', 'varnished']),
            SpecField::quantity('heat_limit', 'Highest temperature', Dimension::Temperature, '°C', ['40 °C', '300 °C']),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'g', ['5 g', '10 kg']),
        ];
    }
}
