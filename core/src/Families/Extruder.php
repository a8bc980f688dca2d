<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Extruder extends Family
{
    public function key(): string
    {
        return 'extruder';
    }

    public function title(): string
    {
        return 'extruder';
    }

    public function words(): array
    {
        return ['extruder'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::OnHead];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('push', 'Push on the filament', Dimension::Force, 'N', [
                '5 N',
                '300 N',
            ])->moreIsBetter(),
            SpecField::quantity('ratio', 'Gear ratio', Dimension::Ratio, '', ['1', '60']),
            SpecField::quantity('filament_diameter', 'Filament', Dimension::Length, 'mm', ['1 mm', '3 mm']),
            SpecField::choice('drive', 'Drive', ['direct', 'remote']),
            SpecField::flag('tension_repeats', 'Idler tension can be set again'),
            ...SpecField::body(),
        ];
    }
}
