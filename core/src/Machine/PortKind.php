<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

enum PortKind: string
{
    /** Holds a voltage of its own: a supply's output, the wall. */
    case Source = 'source';
    /** Takes power in: a load's terminals, a board's power input. */
    case Inlet = 'inlet';
    /** Passes on what an inlet of the same part takes in: a board's heater output, a fuse's far side. */
    case Outlet = 'outlet';
    case Phase = 'phase';
    case Signal = 'signal';
    case Earth = 'earth';

    public function carriesPower(): bool
    {
        return $this === self::Source || $this === self::Inlet || $this === self::Outlet;
    }
}
