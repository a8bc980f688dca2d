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

/** Two or more leads joined for good: crimped, soldered or clamped. */
final class Splice extends Family
{
    public function key(): string
    {
        return 'splice';
    }

    public function title(): string
    {
        return 'splice';
    }

    public function words(): array
    {
        return ['splice', 'butt connector', 'lever connector'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Joins, Ability::RatedByMaker, Ability::GetsLost, Ability::MakesLeads];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('contact_rating', 'Rating', Dimension::Current, 'A', [
                '0.1 A',
                '200 A',
            ])->moreIsBetter(),
            SpecField::choice('kind', 'Kind', ['crimped', 'soldered', 'lever', 'screw', 'twist-on']),
            SpecField::quantity('per_terminal', 'Conductors it takes', Dimension::Ratio, '', ['2', '12']),
            ...SpecField::conductors(),
        ];
    }

    public function ports(): array
    {
        return [new Port('circuit', PortKind::Inlet, lends: ['contact_rating' => 'contact_rating'])];
    }
}
