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

/** A row of terminals, or a distribution block: what ends on one circuit of it is joined. */
final class TerminalBlock extends Family
{
    public function key(): string
    {
        return 'terminal_block';
    }

    public function title(): string
    {
        return 'terminal block';
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Joins, Ability::RatedByMaker];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('contact_rating', 'Rating of one circuit', Dimension::Current, 'A', [
                '0.1 A',
                '200 A',
            ])->moreIsBetter(),
            SpecField::quantity(
                'circuits',
                'Circuits through it',
                Dimension::Ratio,
                '',
                ['1', '64'],
                'Each is out and back, and has a place of its own for leads to end at.',
            ),
            SpecField::quantity('per_terminal', 'Conductors one circuit takes', Dimension::Ratio, '', ['1', '48']),
            SpecField::quantity('wire_from', 'Thinnest conductor', Dimension::Area, 'mm²', ['0.03 mm²', '16 mm²']),
            SpecField::quantity('wire_to', 'Thickest conductor', Dimension::Area, 'mm²', ['0.03 mm²', '50 mm²']),
            SpecField::quantity('voltage_rating', 'Rated for', Dimension::Voltage, 'V', ['12 V', '1 kV']),
            SpecField::quantity('torque', 'Tightening torque', Dimension::Torque, 'N m', ['0.1 N m', '20 N m']),
            SpecField::note('driver', 'Screwdriver it takes'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [new Port('circuit', PortKind::Inlet, lends: ['contact_rating' => 'contact_rating'])];
    }

    public function countedBy(): string
    {
        return 'circuits';
    }
}
