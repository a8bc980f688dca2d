<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Dimension;

/** What every supply says, however it is joined to the mains: what it gives, what it loses, and where its leads end. */
final class SupplyOutput
{
    /**
     * @return list<SpecField>
     */
    public static function fields(): array
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
                '5 W',
                '3 kW',
            ])->moreIsBetter(),
            SpecField::choice('on_short', 'Into a short circuit', PortSheet::ON_SHORT),
            SpecField::range('input_voltage', 'Input voltage', Dimension::Voltage, 'V', ['12 V', '480 V']),
            SpecField::quantity('efficiency', 'Efficiency at full load', Dimension::Ratio, '%', [
                '50 %',
                '99 %',
            ])->moreIsBetter(),
            SpecField::quantity('power_factor', 'Power factor', Dimension::Ratio, '', ['0.4', '1'])->moreIsBetter(),
            SpecField::quantity('derate_from', 'Full output up to', Dimension::Temperature, '°C', [
                '0 °C',
                '80 °C',
            ])->moreIsBetter(),
            SpecField::quantity('derating', 'Output lost above that', Dimension::TemperatureCoefficient, '%/K', [
                '-10 %/K',
                '0 %/K',
            ]),
            SpecField::quantity('contact_rating', 'Rating of one output terminal', Dimension::Current, 'A', [
                '0.5 A',
                '100 A',
            ]),
            SpecField::quantity('contacts_per_pole', 'Output terminals per pole', Dimension::Ratio, '', ['1', '12']),
        ];
    }

    public static function port(): Port
    {
        return new Port(
            'out',
            PortKind::Source,
            lends: [
                'voltage' => 'output_voltage',
                'rated_current' => 'rated_current',
                'contact_rating' => 'contact_rating',
                'contacts_per_pole' => 'contacts_per_pole',
            ],
        );
    }
}
