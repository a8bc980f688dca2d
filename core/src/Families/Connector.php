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

/** Both halves of a connector between two leads, or in a panel. Each circuit of it is out and back. */
final class Connector extends Family
{
    public function key(): string
    {
        return 'connector';
    }

    public function title(): string
    {
        return 'plug and socket';
    }

    public function words(): array
    {
        return ['plug and socket', 'panel plug', 'panel socket'];
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
            SpecField::quantity('contact_rating', 'Rating of one contact', Dimension::Current, 'A', [
                '0.1 A',
                '200 A',
            ])->moreIsBetter(),
            SpecField::circuits(),
            SpecField::quantity('contacts_per_circuit', 'Contacts per pole', Dimension::Ratio, '', ['1', '24']),
            SpecField::quantity('ways', 'Ways', Dimension::Ratio, '', ['1', '64']),
            SpecField::choice('mounting', 'Mounting', ['in line', 'panel', 'board']),
            ...SpecField::conductors(),
            SpecField::flag('latching', 'Latches'),
            SpecField::note('crimp_tool', 'Crimp tool'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'circuit',
                PortKind::Inlet,
                lends: ['contact_rating' => 'contact_rating', 'contacts_per_pole' => 'contacts_per_circuit'],
            ),
        ];
    }

    public function countedBy(): string
    {
        return 'circuits';
    }
}
