<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\SupplyOutput;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class PowerSupply extends Family
{
    public function key(): string
    {
        return 'power_supply';
    }

    public function title(): string
    {
        return 'supply';
    }

    public function words(): array
    {
        return ['power supply', 'supply', 'psu'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Converts, Ability::Electronic, Ability::RatedByMaker, Ability::Supplies];
    }

    public function measured(): array
    {
        return [Measured::OutputVoltage];
    }

    public function sheet(): array
    {
        return [
            ...SupplyOutput::fields(),
            SpecField::quantity('peak_current', 'Peak output current', Dimension::Current, 'A', ['0.3 A', '200 A']),
            SpecField::choice('mains_selector', 'Mains selector', ['none', '115 V', '230 V', 'automatic']),
            SpecField::choice('cooling', 'Cooling', ['fanless', 'fan']),
            SpecField::flag('own_fuse', 'Fuse inside'),
            SpecField::flag('own_switch', 'Mains switch'),
            SpecField::flag('terminal_cover', 'Terminal cover'),
            SpecField::flag('earth_terminal', 'Earth terminal'),
            SpecField::choice('start_line', 'Start line', ['none', 'open', 'tied to common']),
            SpecField::quantity('least_load', 'Least load it needs', Dimension::Current, 'A', ['0 A', '10 A']),
            SpecField::quantity('hold_up', 'Hold-up time', Dimension::Time, 'ms', ['0 ms', '200 ms'])->moreIsBetter(),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port(
                'mains',
                PortKind::Inlet,
                mains: true,
                draw: Draw::Converter,
                lends: ['min_voltage' => 'input_voltage', 'max_voltage' => 'input_voltage'],
            ),
            SupplyOutput::port(),
            new Port('earth', PortKind::Earth, mains: true),
        ];
    }

    public function ratios(): array
    {
        return [['rated_power', 'price']];
    }

    public function heatLimit(): string
    {
        return 'derate_from';
    }
}
