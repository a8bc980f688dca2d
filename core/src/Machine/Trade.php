<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** Whose work a part or a check belongs to. */
enum Trade: string
{
    case Electrical = 'electrical';
    case Mechanical = 'mechanical';
    case Thermal = 'thermal';
    case Site = 'site';
    case Workshop = 'workshop';
    case Supply = 'supply';
}
