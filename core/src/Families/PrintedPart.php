<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class PrintedPart extends Family
{
    public function key(): string
    {
        return 'printed_part';
    }

    public function title(): string
    {
        return 'printed part';
    }

    public function words(): array
    {
        return ['printed part', 'printed', '3d print'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('material', 'Material', ['PLA', 'PETG', 'ABS', 'ASA', 'PC', 'PA']),
            SpecField::quantity(
                'glass_transition',
                'Glass transition, if its sheet says',
                Dimension::Temperature,
                '°C',
                ['40 °C', '250 °C'],
            )->moreIsBetter(),
            SpecField::quantity(
                'service_temperature',
                'Hottest it gets in service',
                Dimension::Temperature,
                '°C',
                ['0 °C', '250 °C'],
                'Motor skin, hot-end neighbourhood, chamber, spindle clamp.',
            ),
            SpecField::quantity('walls', 'Walls', Dimension::Ratio, '', ['1', '20']),
            SpecField::quantity('infill', 'Infill', Dimension::Ratio, '%', ['0 %', '100 %']),
            SpecField::quantity('top_bottom_layers', 'Top and bottom layers', Dimension::Ratio, '', ['1', '40']),
            SpecField::quantity('mass', 'Mass printed', Dimension::Mass, 'g', ['0.1 g', '10 kg']),
            SpecField::quantity('volume', 'Volume', Dimension::Volume, 'cm³', ['0.01 cm³', '10000 cm³']),
            SpecField::quantity('wall_share', 'Share of its volume that is wall', Dimension::Ratio, '%', [
                '5 %',
                '100 %',
            ]),
            SpecField::quantity('print_time', 'Print time', Dimension::Time, 'h', ['1 min', '300 h']),
            SpecField::note('colour', 'Colour'),
            SpecField::note('file_version', 'File and version'),
        ];
    }
}
