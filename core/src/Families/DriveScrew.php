<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class DriveScrew extends Family
{
    public function key(): string
    {
        return 'drive_screw';
    }

    public function title(): string
    {
        return 'lead or ball screw';
    }

    public function words(): array
    {
        return ['ball screw', 'ballscrew', 'lead screw', 'leadscrew'];
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function abilities(): array
    {
        return [Ability::HasLead];
    }

    public function matched(): bool
    {
        return true;
    }

    public function sheet(): array
    {
        return [
            SpecField::choice('kind', 'Kind', ['lead screw', 'ball screw']),
            SpecField::quantity('diameter', 'Diameter', Dimension::Length, 'mm', ['4 mm', '63 mm']),
            SpecField::quantity('root_diameter', 'Root diameter', Dimension::Length, 'mm', ['3 mm', '60 mm']),
            SpecField::quantity('end_diameter', 'Diameter of its driven end', Dimension::Length, 'mm', [
                '3 mm',
                '60 mm',
            ]),
            SpecField::quantity('lead', 'Lead', Dimension::Length, 'mm', ['0.5 mm', '50 mm']),
            SpecField::quantity('length', 'Length', Dimension::Length, 'mm', ['20 mm', '4 m']),
            SpecField::quantity('accuracy', 'Travel error over 300 mm', Dimension::Length, 'µm', ['1 µm', '1 mm']),
            SpecField::quantity('backlash', 'Backlash', Dimension::Length, 'µm', ['0 µm', '1 mm'])->lessIsBetter(),
            SpecField::quantity(
                'end_play',
                'Axial play, built in',
                Dimension::Length,
                'µm',
                ['0 µm', '2 mm'],
                'Measured on the machine: dial indicator on its end, pushed and pulled by hand.',
            ),
            SpecField::quantity(
                'turning_torque',
                'Torque to turn it, built in',
                Dimension::Torque,
                'N m',
                ['0 N m', '20 N m'],
                'Measured on the machine, motor uncoupled: a spring scale on an arm.',
            ),
            SpecField::quantity('dynamic_load', 'Dynamic load rating', Dimension::Force, 'N', ['50 N', '500000 N']),
            SpecField::quantity('mass', 'Mass', Dimension::Mass, 'kg', ['1 g', '100 kg']),
        ];
    }

    public function sides(): array
    {
        return ['length', 'diameter', 'diameter'];
    }
}
