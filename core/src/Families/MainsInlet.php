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

/** Where the wall comes in: its voltage is the site's. */
final class MainsInlet extends Family
{
    public function key(): string
    {
        return 'mains_inlet';
    }

    public function title(): string
    {
        return 'mains inlet';
    }

    public function words(): array
    {
        return ['inlet', 'mains socket'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::RatedByMaker, Ability::TakesMains, Ability::BoughtAsItIs];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_current', 'Rated current', Dimension::Current, 'A', [
                '1 A',
                '63 A',
            ])->moreIsBetter(),
            SpecField::quantity('rated_voltage', 'Rated for', Dimension::Voltage, 'V', ['100 V', '480 V']),
            SpecField::quantity('fuse_rating', 'Fuse fitted', Dimension::Current, 'A', ['0.5 A', '63 A']),
            SpecField::choice('fuse_kind', 'Kind of fuse fitted', ['glass', 'ceramic', 'breaker']),
            SpecField::choice('speed', 'Speed of the fuse fitted', ['fast', 'medium', 'slow']),
            SpecField::flag('switch', 'Switch built in'),
            SpecField::flag('filter', 'Filter built in'),
            SpecField::quantity('poles_switched', 'Poles switched', Dimension::Ratio, '', ['0', '4']),
            SpecField::quantity(
                'cut_out',
                'Cut-out it needs',
                Dimension::Length,
                'mm',
                ['3 mm', '300 mm'],
                'Its longest side, or its diameter. Measure the part in hand before cutting.',
            ),
            SpecField::quantity('contact_rating', 'Rating of its terminals', Dimension::Current, 'A', ['1 A', '63 A']),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'out',
                PortKind::Source,
                mains: true,
                lends: [
                    'rated_current' => 'rated_current',
                    'fuse_rating' => 'fuse_rating',
                    'contact_rating' => 'contact_rating',
                ],
            ),
            new Port('earth', PortKind::Earth, mains: true),
        ];
    }
}
