<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;

final class Consumable extends Family
{
    public function key(): string
    {
        return 'consumable';
    }

    public function title(): string
    {
        return 'consumable';
    }

    public function words(): array
    {
        return ['grease', 'thread lock', 'ferrules', 'solder', 'tape', 'cleaner', 'glue', 'heat shrink', 'cable tie'];
    }

    public function trade(): Trade
    {
        return Trade::Workshop;
    }

    public function abilities(): array
    {
        return [Ability::MakesLeads, Ability::BoughtAsItIs, Ability::NotFitted];
    }

    public function sheet(): array
    {
        return [
            SpecField::note('kind', 'What it is'),
            SpecField::note('contents', 'Contents of a pack'),
            SpecField::note('expires', 'Keep until'),
        ];
    }

    public function account(): Account
    {
        return Account::Consumable;
    }
}
