<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

final class Thermistor extends Family
{
    public function key(): string
    {
        return 'thermistor';
    }

    public function title(): string
    {
        return 'thermistor';
    }

    public function words(): array
    {
        return ['thermistor', 'temperature sensor'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::SensesHeat];
    }

    public function matched(): bool
    {
        return true;
    }

    public function measured(): array
    {
        return [Measured::SensorResistance];
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('resistance_25', 'Resistance at 25 °C', Dimension::Resistance, 'kΩ', ['10 Ω', '2 MΩ']),
            SpecField::quantity('beta', 'Beta value', Dimension::TemperatureDifference, 'K', ['2000 K', '6000 K']),
            SpecField::quantity('highest_temperature', 'Highest temperature', Dimension::Temperature, '°C', [
                '50 °C',
                '500 °C',
            ]),
            SpecField::note('table', 'Table name in the firmware'),
            ...SpecField::body(),
        ];
    }

    public function ports(): array
    {
        return [new Port('signal', PortKind::Signal)];
    }

    public function channels(Part $part): array
    {
        return ['thermistor'];
    }

    public function hosts(): array
    {
        return ['hot_end', 'heater'];
    }
}
