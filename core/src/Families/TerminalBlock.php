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

    public function words(): array
    {
        return ['terminal block', 'terminal row', 'terminal strip', 'distribution block'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Joins, Ability::RatedByMaker, Ability::MakesLeads];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('contact_rating', 'Rating of one circuit', Dimension::Current, 'A', [
                '0.1 A',
                '200 A',
            ])->moreIsBetter(),
            SpecField::circuits(),
            SpecField::quantity('per_terminal', 'Conductors one circuit takes', Dimension::Ratio, '', ['1', '48']),
            ...SpecField::conductors(),
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
