<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class HeatSink extends Family
{
    public function key(): string
    {
        return 'heat_sink';
    }

    public function title(): string
    {
        return 'heat sink';
    }

    public function words(): array
    {
        return ['heat sink', 'heatsink'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::TakesHeat];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('thermal_resistance', 'Rise for one watt', Dimension::ThermalResistance, 'K/W', [
                '0.05 K/W',
                '100 K/W',
            ])->lessIsBetter(),
            SpecField::choice('fixed_with', 'Fixed with', ['adhesive pad', 'paste and screws', 'clip']),
            SpecField::flag('insulated', 'Insulated from what it cools'),
            ...SpecField::body(),
        ];
    }

    public function hosts(): array
    {
        return ['motor_driver', 'relay', 'switching_module', 'controller_board'];
    }
}
