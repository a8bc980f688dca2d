<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class ArcSource extends Family
{
    public function key(): string
    {
        return 'arc_source';
    }

    public function title(): string
    {
        return 'arc source';
    }

    public function words(): array
    {
        return ['plasma source', 'arc source', 'plasma cutter', 'welding source'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Hurts, Ability::Arcs, Ability::Disturbs];
    }

    public function hazard(): Hazard
    {
        return Hazard::Torch;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('output_current', 'Cutting current', Dimension::Current, 'A', [
                '10 A',
                '200 A',
            ])->moreIsBetter(),
            SpecField::quantity('rated_voltage', 'Mains voltage', Dimension::Voltage, 'V', ['100 V', '480 V']),
            SpecField::quantity('rated_power', 'Input power', Dimension::Power, 'kW', ['1 kW', '30 kW']),
            SpecField::quantity('power_factor', 'Power factor', Dimension::Ratio, '', ['0.4', '1'])->moreIsBetter(),
            SpecField::quantity('duty_cycle', 'Duty cycle at that current', Dimension::Ratio, '%', [
                '10 %',
                '100 %',
            ])->moreIsBetter(),
            SpecField::choice('start', 'Arc start', ['high frequency', 'blow-back', 'scratch']),
            SpecField::flag('pilot_arc', 'Pilot arc'),
            SpecField::flag('isolated', 'Its torch lead is isolated and screened from the controls'),
            SpecField::choice('torch_switch', 'Torch switch', ['dry contact', 'low voltage', 'not known']),
            SpecField::note(
                'cut_chart',
                'Cut chart',
                'Sheet, feed and kerf of its chart, such as "1.5 mm 4000 mm/min 1.2 mm; 3 mm 2000 mm/min 1.5 mm".',
            ),
            SpecField::quantity('air_flow', 'Air flow', Dimension::Flow, 'L/min', ['20 L/min', '400 L/min']),
            SpecField::quantity('air_pressure', 'Air pressure', Dimension::Pressure, 'bar', ['2 bar', '10 bar']),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port('mains', PortKind::Inlet, mains: true, draw: Draw::Power),
            new Port('torch', PortKind::Signal),
            new Port('earth', PortKind::Earth, mains: true),
        ];
    }
}
