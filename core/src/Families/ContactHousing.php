<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class ContactHousing extends Family
{
    public function key(): string
    {
        return 'contact_housing';
    }

    public function title(): string
    {
        return 'contact or housing';
    }

    public function words(): array
    {
        return ['housing', 'connector', 'plug', 'terminal', 'crimp contact'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::RatedByMaker, Ability::MakesLeads, Ability::NotFitted];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('contact_rating', 'Rating of one contact', Dimension::Current, 'A', [
                '0.1 A',
                '100 A',
            ])->moreIsBetter(),
            SpecField::quantity('ways', 'Ways', Dimension::Ratio, '', ['1', '64']),
            SpecField::quantity('pitch', 'Pitch', Dimension::Length, 'mm', ['0.5 mm', '20 mm']),
            ...SpecField::conductors(),
            SpecField::flag('latching', 'Latches'),
            SpecField::note('crimp_tool', 'Crimp tool'),
        ];
    }
}
