<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\SupplyOutput;
use Magpie\Core\Machine\Trade;

/** A supply in a closed case with a plug of its own: nothing on its mains side is the builder's to wire, and no stop of the machine reaches it. */
final class PlugSupply extends Family
{
    public function key(): string
    {
        return 'plug_supply';
    }

    public function title(): string
    {
        return 'plug-in supply';
    }

    public function words(): array
    {
        return ['plug-in supply', 'plug in supply', 'plug supply', 'wall adapter', 'mains adapter', 'desktop supply', 'power brick'];
    }

    public function trade(): Trade
    {
        return Trade::Electrical;
    }

    public function abilities(): array
    {
        return [Ability::Converts, Ability::Electronic, Ability::RatedByMaker, Ability::Supplies, Ability::HasOwnPlug];
    }

    public function measured(): array
    {
        return [Measured::OutputVoltage];
    }

    public function sheet(): array
    {
        return [...SupplyOutput::fields(), ...SpecField::body()];
    }

    public function ports(): array
    {
        return [SupplyOutput::port()];
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
