<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Probe extends Family
{
    public function key(): string
    {
        return 'probe';
    }

    public function title(): string
    {
        return 'probe';
    }

    public function words(): array
    {
        return ['probe', 'touch plate'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Speaks, Ability::OnHead];
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', [
                'inductive',
                'contact',
                'optical',
                'load cell',
                'nozzle contact',
                'tool length',
            ]),
            SpecField::quantity('min_voltage', 'Lowest supply voltage', Dimension::Voltage, 'V', ['3 V', '30 V']),
            SpecField::quantity('max_voltage', 'Highest supply voltage', Dimension::Voltage, 'V', ['3 V', '40 V']),
            SpecField::quantity('rated_current', 'Supply current', Dimension::Current, 'mA', ['0 mA', '500 mA']),
            ...SpecField::signalOutput(),
            SpecField::quantity('repeatability', 'Repeatability', Dimension::Length, 'µm', [
                '0.1 µm',
                '1 mm',
            ])->lessIsBetter(),
            SpecField::quantity('heat_limit', 'Highest air temperature', Dimension::Temperature, '°C', [
                '20 °C',
                '200 °C',
            ])->moreIsBetter(),
            SpecField::quantity('sense_distance', 'Sensing distance', Dimension::Length, 'mm', ['0 mm', '50 mm']),
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
            new Port('signal', PortKind::Signal),
        ];
    }

    public function alwaysOn(): bool
    {
        return true;
    }

    public function channels(Part $part): array
    {
        return ['probe', 'switch'];
    }

    public function heatLimit(): string
    {
        return 'heat_limit';
    }
}
