<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Dimension;

/** What may be said of any port, whatever part it is on. */
final class PortSheet
{
    /**
     * @return list<SpecField>
     */
    public static function fields(): array
    {
        static $fields = null;

        return $fields ??= [
            SpecField::quantity('voltage', 'Voltage held', Dimension::Voltage, 'V', ['1 V', '480 V']),
            SpecField::quantity('min_voltage', 'Lowest voltage accepted', Dimension::Voltage, 'V', ['1 V', '480 V']),
            SpecField::quantity('max_voltage', 'Highest voltage accepted', Dimension::Voltage, 'V', ['1 V', '480 V'], 'The rating of its weakest part, capacitors included.'),
            SpecField::quantity('rated_current', 'Rated current', Dimension::Current, 'A', ['1 mA', '200 A']),
            SpecField::quantity('contact_rating', 'Rating of one contact', Dimension::Current, 'A', ['0.1 A', '100 A']),
            SpecField::quantity('contacts_per_pole', 'Contacts per pole', Dimension::Ratio, '', ['1', '24']),
            SpecField::quantity('fuse_rating', 'Fuse on this port', Dimension::Current, 'A', ['0.1 A', '100 A']),
            SpecField::quantity('resistance', 'Resistance from inlet to outlet', Dimension::Resistance, 'mΩ', ['0.1 mΩ', '10 Ω']),
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
