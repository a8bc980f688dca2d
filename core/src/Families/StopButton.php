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

final class StopButton extends Family
{
    public function key(): string
    {
        return 'stop_button';
    }

    public function title(): string
    {
        return 'stop';
    }

    public function words(): array
    {
        return ['emergency stop', 'stop button', 'e-stop'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Stops, Ability::RatedByMaker, Ability::Interrupts];
    }

    public function sheet(): array
    {
        return [
            SpecField::flag('latching', 'Latches when pressed'),
            SpecField::flag('positive_opening', 'Contacts open positively'),
            SpecField::choice('normally', 'Contact at rest', ['closed', 'open']),
            SpecField::quantity('rated_current', 'Rated current of a contact', Dimension::Current, 'A', [
                '0.1 A',
                '63 A',
            ]),
            SpecField::quantity('voltage_rating', 'Rated for, alternating', Dimension::Voltage, 'V', ['12 V', '690 V']),
            SpecField::quantity('dc_voltage', 'Highest direct voltage it breaks', Dimension::Voltage, 'V', [
                '5 V',
                '1 kV',
            ]),
            SpecField::flag('separate_reset', 'Stays off when released; a reset of its own'),
            SpecField::quantity(
                'cut_out',
                'Cut-out it needs',
                Dimension::Length,
                'mm',
                ['3 mm', '300 mm'],
                'Its longest side, or its diameter. Measure the part in hand before cutting.',
            ),
            SpecField::quantity('contacts', 'Contacts', Dimension::Ratio, '', ['1', '6']),
        ];
    }

    public function ports(): array
    {
        return [
            new Port('in', PortKind::Inlet, lends: ['contact_rating' => 'rated_current']),
            new Port(
                'out',
                PortKind::Outlet,
                fedFrom: 'in',
                lends: ['rated_current' => 'rated_current', 'contact_rating' => 'rated_current'],
            ),
        ];
    }
}
