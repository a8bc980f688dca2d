<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

enum FieldKind: string
{
    case Quantity = 'quantity';
    case Range = 'range';
    case Choice = 'choice';
    case Flag = 'flag';
    case Text = 'text';
}
