<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class PrintedPart extends Family
{
    /** What is printed with, as sheets, reels and printers call it. */
    public const PLASTICS = ['PLA', 'PETG', 'ABS', 'ASA', 'PC', 'PA'];

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

    public function abilities(): array
    {
        return [Ability::Printed, Ability::OfPlastic];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('material', 'Material', self::PLASTICS),
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
            SpecField::quantity('area', 'Surface', Dimension::Area, 'cm²', ['0.01 cm²', '100000 cm²']),
            SpecField::quantity('line_width', 'Width of a line', Dimension::Length, 'mm', ['0.1 mm', '3 mm']),
            SpecField::quantity('length', 'Length as printed', Dimension::Length, 'mm', ['0.5 mm', '2 m']),
            SpecField::quantity('width', 'Width as printed', Dimension::Length, 'mm', ['0.5 mm', '2 m']),
            SpecField::quantity('height', 'Height as printed', Dimension::Length, 'mm', ['0.2 mm', '2 m']),
            SpecField::choice('supports', 'Supports', ['none', 'some', 'much']),
            SpecField::quantity('inserts', 'Inserts to melt in', Dimension::Ratio, '', ['0', '100']),
            SpecField::quantity('print_time', 'Print time', Dimension::Time, 'h', ['1 min', '300 h']),
            SpecField::note('colour', 'Colour'),
            SpecField::note('file_version', 'File and version'),
        ];
    }

    public function sides(): array
    {
        return ['length', 'width', 'height'];
    }
}
