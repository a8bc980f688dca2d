<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

enum Account: string
{
    case Machine = 'machine';
    case Tool = 'tool';
    case Consumable = 'consumable';

    public function label(): string
    {
        return match ($this) {
            self::Machine => 'machine',
            self::Tool => 'tools',
            self::Consumable => 'consumables',
        };
    }
}
