<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Lamp extends Family
{
    public function key(): string
    {
        return 'lamp';
    }

    public function title(): string
    {
        return 'light';
    }

    public function words(): array
    {
        return ['led', 'light', 'lamp'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Steady];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_voltage', 'Rated voltage', Dimension::Voltage, 'V', ['3 V', '250 V']),
            SpecField::quantity('min_voltage', 'Lowest voltage', Dimension::Voltage, 'V', ['3 V', '250 V']),
            SpecField::quantity('max_voltage', 'Highest voltage', Dimension::Voltage, 'V', ['3 V', '264 V']),
            SpecField::quantity('rated_current', 'Rated current', Dimension::Current, 'A', ['1 mA', '5 A']),
            SpecField::quantity(
                'cut_out',
                'Cut-out it needs',
                Dimension::Length,
                'mm',
                ['3 mm', '300 mm'],
                'Its longest side, or its diameter. Measure the part in hand before cutting.',
            ),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'power',
                PortKind::Inlet,
                draw: Draw::Current,
                lends: [
                    'min_voltage' => 'min_voltage',
                    'max_voltage' => 'max_voltage',
                    'rated_current' => 'rated_current',
                ],
            ),
        ];
    }

    public function channels(Part $part): array
    {
        return ['light', 'fan'];
    }
}
