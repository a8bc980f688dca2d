<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class LinearRail extends Family
{
    public function key(): string
    {
        return 'linear_rail';
    }

    public function title(): string
    {
        return 'rail and blocks';
    }

    public function words(): array
    {
        return ['rail', 'linear guide'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::Rusts, Ability::Guides, Ability::Rolls];
    }

    public function matched(): bool
    {
        return true;
    }

    public function sheet(): array
    {
        return [
            SpecField::note('series', 'Size'),
            SpecField::quantity('length', 'Rail length', Dimension::Length, 'mm', ['20 mm', '6 m']),
            SpecField::quantity('block_length', 'Block length', Dimension::Length, 'mm', [
                '10 mm',
                '300 mm',
            ])->lessIsBetter(),
            SpecField::quantity('blocks', 'Blocks per rail', Dimension::Ratio, '', ['1', '8']),
            SpecField::quantity('dynamic_load', 'Dynamic load rating', Dimension::Force, 'N', [
                '50 N',
                '500000 N',
            ])->moreIsBetter(),
            SpecField::quantity('static_load', 'Static load rating', Dimension::Force, 'N', [
                '50 N',
                '900000 N',
            ])->moreIsBetter(),
            SpecField::choice('preload', 'Preload', ['clearance', 'light', 'medium', 'heavy']),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'kg', ['1 g', '100 kg'])->lessIsBetter(),
        ];
    }

    public function ratios(): array
    {
        return [['dynamic_load', 'price']];
    }

    public function sides(): array
    {
        return ['length', null, null];
    }
}
