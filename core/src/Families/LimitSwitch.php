<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class LimitSwitch extends Family
{
    public function key(): string
    {
        return 'limit_switch';
    }

    public function title(): string
    {
        return 'stop switch';
    }

    public function words(): array
    {
        return ['limit switch', 'end stop', 'endstop', 'stop switch', 'microswitch'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Speaks];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', ['lever', 'roller', 'plunger', 'reed', 'optical', 'inductive']),
            SpecField::choice('normally', 'Contact at rest', ['open', 'closed', 'change-over']),
            SpecField::quantity('contact_rating', 'Contact rating', Dimension::Current, 'A', [
                '1 mA',
                '20 A',
            ])->moreIsBetter(),
            SpecField::quantity('max_voltage', 'Highest voltage', Dimension::Voltage, 'V', ['3 V', '400 V']),
            SpecField::quantity('repeatability', 'Repeatability', Dimension::Length, 'µm', [
                '0.1 µm',
                '1 mm',
            ])->lessIsBetter(),
            SpecField::quantity('life', 'Operations', Dimension::Ratio, '', ['1000', '100000000'])->moreIsBetter(),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [new Port('signal', PortKind::Signal)];
    }

    public function channels(Part $part): array
    {
        return ['switch'];
    }
}
