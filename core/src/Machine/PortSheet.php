<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Dimension;

/** What may be said of any port, whatever part it is on. */
final class PortSheet
{
    public const USES = ['motor', 'heater', 'fan', 'light', 'thermistor', 'switch', 'probe', 'signal'];

    /** What the circuits are solved with, beside being read: of these a check cannot suppose another value by itself. */
    public const SOLVED = ['voltage', 'resistance'];

    /** What a source does when it is shorted: gives nothing for as long as that lasts, or goes on giving. */
    public const ON_SHORT = ['shuts down and tries again', 'goes on giving'];

    /**
     * @return list<SpecField>
     */
    public static function fields(): array
    {
        static $fields = null;

        return $fields ??= [
            SpecField::quantity('voltage', 'Voltage held', Dimension::Voltage, 'V', ['1 V', '480 V']),
            SpecField::quantity('min_voltage', 'Lowest voltage accepted', Dimension::Voltage, 'V', ['1 V', '480 V']),
            SpecField::quantity(
                'max_voltage',
                'Highest voltage accepted',
                Dimension::Voltage,
                'V',
                ['1 V', '480 V'],
                'The rating of its weakest part, capacitors included.',
            ),
            SpecField::quantity('rated_current', 'Rated current', Dimension::Current, 'A', ['1 mA', '200 A']),
            SpecField::quantity('contact_rating', 'Rating of one contact', Dimension::Current, 'A', ['0.1 A', '100 A']),
            SpecField::quantity('contacts_per_pole', 'Contacts per pole', Dimension::Ratio, '', ['1', '24']),
            SpecField::quantity('fuse_rating', 'Fuse on this port', Dimension::Current, 'A', ['0.1 A', '100 A']),
            SpecField::choice('fuse_kind', 'Kind of that fuse', ['blade', 'glass', 'ceramic', 'breaker', 'resettable']),
            SpecField::quantity(
                'limits_at',
                'Limits itself to',
                Dimension::Current,
                'A',
                ['0.05 A', '200 A'],
                'An output that shuts down or holds its current protects all behind it.',
            ),
            SpecField::choice('on_short', 'Into a short circuit', self::ON_SHORT),
            SpecField::quantity('resistance', 'Resistance from inlet to outlet', Dimension::Resistance, 'mΩ', [
                '0.1 mΩ',
                '10 Ω',
            ]),
            SpecField::choice('use', 'What this channel is for', self::USES),
            SpecField::note('pin', 'Processor pin', 'Channels on one pin switch together.'),
            SpecField::note('bank', 'Voltage selector', 'Channels behind one selector share its voltage.'),
            SpecField::choice('control', 'How it is switched', ['always on', 'switched', 'speed']),
            SpecField::choice('support', 'Usable', ['today', 'with other firmware', 'promised']),
            SpecField::flag('reserved', 'To be left free'),
            SpecField::flag('pull_up', 'Pull-up at this input'),
            SpecField::flag('pull_down', 'Pull-down at this input'),
            SpecField::choice('input', 'Protection of this input', ['none', 'protected', 'isolated']),
            SpecField::flag('tested', 'Tested with what hangs on it', 'Whether the pair was tried and works.'),
        ];
    }

    public static function field(string $key): ?SpecField
    {
        foreach (self::fields() as $field) {
            if ($field->key === $key) {
                return $field;
            }
        }

        return null;
    }
}
