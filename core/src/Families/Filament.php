<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Filament extends Family
{
    public function key(): string
    {
        return 'filament';
    }

    public function title(): string
    {
        return 'filament';
    }

    public function words(): array
    {
        return ['filament', 'reel'];
    }

    public function trade(): Trade
    {
        return Trade::Workshop;
    }

    public function abilities(): array
    {
        return [Ability::Feedstock, Ability::OfPlastic, Ability::NotFitted];
    }

    public function matched(): bool
    {
        return true;
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('material', 'Material', PrintedPart::PLASTICS),
            SpecField::quantity('diameter', 'Diameter', Dimension::Length, 'mm', ['1 mm', '3.5 mm']),
            SpecField::quantity('density', 'Density', Dimension::Density, 'g/cm³', ['0.8 g/cm³', '2 g/cm³']),
            SpecField::quantity('mass', 'Mass on the reel', Dimension::Mass, 'kg', ['50 g', '25 kg']),
            SpecField::note('colour', 'Colour'),
            SpecField::quantity('nozzle_temperature', 'Printed at', Dimension::Temperature, '°C', ['150 °C', '450 °C']),
            SpecField::quantity('bed_temperature', 'Bed', Dimension::Temperature, '°C', ['20 °C', '160 °C']),
            SpecField::quantity('chamber_temperature', 'Air around the print', Dimension::Temperature, '°C', [
                '15 °C',
                '90 °C',
            ]),
            SpecField::quantity('line_width', 'Width of a line', Dimension::Length, 'mm', ['0.1 mm', '3 mm']),
            SpecField::quantity('layer_height', 'Height of a layer', Dimension::Length, 'mm', ['0.02 mm', '2 mm']),
            SpecField::choice('door', 'Door of the chamber', ['open', 'shut', 'either']),
        ];
    }

    public function account(): Account
    {
        return Account::Consumable;
    }
}
