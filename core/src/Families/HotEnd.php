<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class HotEnd extends Family
{
    public function key(): string
    {
        return 'hot_end';
    }

    public function title(): string
    {
        return 'hot end';
    }

    public function words(): array
    {
        return ['hot end', 'hotend'];
    }

    public function trade(): Trade
    {
        return Trade::Thermal;
    }

    public function abilities(): array
    {
        return [Ability::Melts];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('flow', 'Flow it melts', Dimension::Flow, 'mm³/s', [
                '1 mm³/s',
                '200 mm³/s',
            ])->moreIsBetter(),
            SpecField::quantity('top_temperature', 'Highest temperature', Dimension::Temperature, '°C', [
                '150 °C',
                '600 °C',
            ])->moreIsBetter(),
            SpecField::quantity(
                'lining_limit',
                'Limit of its lining',
                Dimension::Temperature,
                '°C',
                ['150 °C', '600 °C'],
                'A lining above its limit gives off toxic fumes.',
            ),
            SpecField::quantity('nozzle', 'Nozzle bore', Dimension::Length, 'mm', ['0.1 mm', '2 mm']),
            SpecField::choice('nozzle_thread', 'Nozzle fits', ['short', 'long', 'one piece with the heat break']),
            SpecField::quantity('filament_diameter', 'Filament', Dimension::Length, 'mm', ['1 mm', '3 mm']),
            SpecField::flag('lined', 'Lined heat break'),
            ...SpecField::body(),
        ];
    }

    public function ratios(): array
    {
        return [['flow', 'price']];
    }
}
