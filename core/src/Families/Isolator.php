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

/** Takes a signal over from one voltage to another, with nothing that conducts between them. */
final class Isolator extends Family
{
    public function key(): string
    {
        return 'isolator';
    }

    public function title(): string
    {
        return 'isolating stage';
    }

    public function words(): array
    {
        return ['isolator', 'opto-isolator'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Speaks, Ability::RatedByMaker, Ability::Isolates];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('channels', 'Channels', Dimension::Ratio, '', ['1', '16']),
            SpecField::quantity('input_min', 'Reads as high from', Dimension::Voltage, 'V', ['1 V', '48 V']),
            SpecField::quantity('input_max', 'Its input stands', Dimension::Voltage, 'V', ['3 V', '60 V']),
            SpecField::choice('output', 'Output', ['contact', 'sinking', 'sourcing', 'push-pull']),
            SpecField::quantity('min_voltage', 'Lowest supply of its output side', Dimension::Voltage, 'V', [
                '1.8 V',
                '48 V',
            ]),
            SpecField::quantity('max_voltage', 'Highest supply of its output side', Dimension::Voltage, 'V', [
                '3 V',
                '60 V',
            ]),
            SpecField::quantity('rated_current', 'Supply current', Dimension::Current, 'mA', ['0 mA', '500 mA']),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [
            new Port('in', PortKind::Signal, lends: ['min_voltage' => 'input_min', 'max_voltage' => 'input_max']),
            new Port('signal', PortKind::Signal),
        ];
    }

    public function countedBy(): string
    {
        return 'channels';
    }
}
