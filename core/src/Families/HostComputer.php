<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class HostComputer extends Family
{
    public function key(): string
    {
        return 'host_computer';
    }

    public function title(): string
    {
        return 'host computer';
    }

    public function words(): array
    {
        return ['host computer', 'single-board computer', 'computer'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Electronic, Ability::WarmsByAllItTakes];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('rated_voltage', 'Rated voltage', Dimension::Voltage, 'V', ['3 V', '24 V']),
            SpecField::quantity('min_voltage', 'Lowest supply voltage', Dimension::Voltage, 'V', ['3 V', '24 V']),
            SpecField::quantity('max_voltage', 'Highest supply voltage', Dimension::Voltage, 'V', ['3 V', '30 V']),
            SpecField::quantity('rated_current', 'Highest current', Dimension::Current, 'A', [
                '0.1 A',
                '10 A',
            ])->lessIsBetter(),
            SpecField::note('storage', 'Storage'),
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
            new Port('link', PortKind::Signal),
        ];
    }

    public function alwaysOn(): bool
    {
        return true;
    }
}
