<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class DcConverter extends Family
{
    public function key(): string
    {
        return 'dc_converter';
    }

    public function title(): string
    {
        return 'converter';
    }

    public function words(): array
    {
        return ['converter', 'buck', 'step-down'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Converts, Ability::Electronic, Ability::RatedByMaker];
    }

    public function measured(): array
    {
        return [Measured::OutputVoltage];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('output_voltage', 'Output voltage', Dimension::Voltage, 'V', ['1 V', '100 V']),
            SpecField::quantity('voltage_tolerance', 'Output tolerance, either way', Dimension::Ratio, '%', [
                '0 %',
                '20 %',
            ]),
            SpecField::quantity('rated_current', 'Rated output current', Dimension::Current, 'A', [
                '0.1 A',
                '60 A',
            ])->moreIsBetter(),
            SpecField::choice('on_short', 'Into a short circuit', PortSheet::ON_SHORT),
            SpecField::range('input_voltage', 'Input voltage', Dimension::Voltage, 'V', ['1 V', '100 V']),
            SpecField::quantity('min_input', 'Lowest input', Dimension::Voltage, 'V', ['1 V', '100 V']),
            SpecField::quantity('max_input', 'Highest input', Dimension::Voltage, 'V', ['1 V', '100 V']),
            SpecField::quantity('efficiency', 'Efficiency at full load', Dimension::Ratio, '%', [
                '50 %',
                '99 %',
            ])->moreIsBetter(),
            SpecField::flag('isolated', 'Output isolated from input'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'in',
                PortKind::Inlet,
                draw: Draw::Converter,
                lends: ['min_voltage' => 'min_input', 'max_voltage' => 'max_input'],
            ),
            new Port(
                'out',
                PortKind::Source,
                lends: ['voltage' => 'output_voltage', 'rated_current' => 'rated_current'],
            ),
        ];
    }
}
