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

final class PowerSupply extends Family
{
    public function key(): string
    {
        return 'power_supply';
    }

    public function title(): string
    {
        return 'supply';
    }

    public function words(): array
    {
        return ['power supply', 'supply', 'psu'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Converts, Ability::Electronic, Ability::RatedByMaker, Ability::Supplies];
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
            SpecField::quantity(
                'rated_current',
                'Rated output current',
                Dimension::Current,
                'A',
                ['0.3 A', '120 A'],
                'At 25 °C unless its sheet says otherwise.',
            )->moreIsBetter(),
            SpecField::quantity('rated_power', 'Rated output power', Dimension::Power, 'W', [
                '20 W',
                '3 kW',
            ])->moreIsBetter(),
            SpecField::quantity('peak_current', 'Peak output current', Dimension::Current, 'A', ['0.3 A', '200 A']),
            SpecField::choice('on_short', 'Into a short circuit', PortSheet::ON_SHORT),
            SpecField::range('input_voltage', 'Input voltage', Dimension::Voltage, 'V', ['12 V', '480 V']),
            SpecField::choice('mains_selector', 'Mains selector', ['none', '115 V', '230 V', 'automatic']),
            SpecField::quantity('efficiency', 'Efficiency at full load', Dimension::Ratio, '%', [
                '50 %',
                '99 %',
            ])->moreIsBetter(),
            SpecField::quantity('power_factor', 'Power factor', Dimension::Ratio, '', ['0.4', '1'])->moreIsBetter(),
            SpecField::choice('cooling', 'Cooling', ['fanless', 'fan']),
            SpecField::quantity('derate_from', 'Full output up to', Dimension::Temperature, '°C', [
                '0 °C',
                '80 °C',
            ])->moreIsBetter(),
            SpecField::quantity('derating', 'Output lost above that', Dimension::TemperatureCoefficient, '%/K', [
                '-10 %/K',
                '0 %/K',
            ]),
            SpecField::flag('own_fuse', 'Fuse inside'),
            SpecField::flag('own_switch', 'Mains switch'),
            SpecField::flag('terminal_cover', 'Terminal cover'),
            SpecField::flag('earth_terminal', 'Earth terminal'),
            SpecField::quantity('contact_rating', 'Rating of one output terminal', Dimension::Current, 'A', [
                '0.5 A',
                '100 A',
            ]),
            SpecField::quantity('contacts_per_pole', 'Output terminals per pole', Dimension::Ratio, '', ['1', '12']),
            SpecField::choice('start_line', 'Start line', ['none', 'open', 'tied to common']),
            SpecField::quantity('least_load', 'Least load it needs', Dimension::Current, 'A', ['0 A', '10 A']),
            SpecField::quantity('hold_up', 'Hold-up time', Dimension::Time, 'ms', ['0 ms', '200 ms'])->moreIsBetter(),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'mains',
                PortKind::Inlet,
                mains: true,
                draw: Draw::Converter,
                lends: ['min_voltage' => 'input_voltage', 'max_voltage' => 'input_voltage'],
            ),
            new Port(
                'out',
                PortKind::Source,
                lends: [
                    'voltage' => 'output_voltage',
                    'rated_current' => 'rated_current',
                    'contact_rating' => 'contact_rating',
                    'contacts_per_pole' => 'contacts_per_pole',
                ],
            ),
            new Port('earth', PortKind::Earth, mains: true),
        ];
    }

    public function ratios(): array
    {
        return [['rated_power', 'price']];
    }

    public function heatLimit(): string
    {
        return 'derate_from';
    }
}
