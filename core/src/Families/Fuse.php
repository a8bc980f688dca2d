<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Fuse extends Family
{
    public function key(): string
    {
        return 'fuse';
    }

    public function title(): string
    {
        return 'fuse or breaker';
    }

    public function words(): array
    {
        return ['fuse', 'breaker'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::GetsLost, Ability::RatedByMaker, Ability::Protects, Ability::Interrupts];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_current', 'Rated current', Dimension::Current, 'A', ['0.05 A', '100 A']),
            SpecField::quantity('voltage_rating', 'Rated for', Dimension::Voltage, 'V', ['12 V', '600 V']),
            SpecField::quantity('dc_voltage', 'Highest direct voltage it breaks', Dimension::Voltage, 'V', [
                '5 V',
                '1 kV',
            ]),
            SpecField::choice('kind', 'Kind', ['blade', 'glass', 'ceramic', 'breaker', 'resettable']),
            SpecField::choice('speed', 'Speed', ['fast', 'medium', 'slow']),
            SpecField::quantity('breaking_capacity', 'Breaking capacity', Dimension::Current, 'A', ['10 A', '50000 A']),
            SpecField::quantity('resistance', 'Cold resistance', Dimension::Resistance, 'mΩ', ['0.1 mΩ', '5 Ω']),
        ];
    }

    public function ports(): array
    {
        return [
            new Port('in', PortKind::Inlet),
            new Port(
                'out',
                PortKind::Outlet,
                fedFrom: 'in',
                lends: [
                    'rated_current' => 'rated_current',
                    'fuse_rating' => 'rated_current',
                    'resistance' => 'resistance',
                ],
            ),
        ];
    }
}
