<?php

declare(strict_types=1);

namespace Magpie\Core\Families;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;

final class Tool extends Family
{
    public function key(): string
    {
        return 'tool';
    }

    public function title(): string
    {
        return 'tool';
    }

    public function words(): array
    {
        return [
            'screwdriver',
            'crimper',
            'hex key',
            'spanner',
            'wrench',
            'calliper',
            'caliper',
            'multimeter',
            'soldering iron',
            'indicator',
            'tap and die',
        ];
    }

    public function trade(): Trade
    {
        return Trade::Workshop;
    }

    public function abilities(): array
    {
        return [Ability::StaysInShop, Ability::BoughtAsItIs, Ability::NotFitted];
    }

    public function sheet(): array
    {
        return [
            SpecField::note('kind', 'What it is for'),
            SpecField::note('size', 'Size'),
            SpecField::note('owned_by', 'Who owns it'),
        ];
    }

    public function account(): Account
    {
        return Account::Tool;
    }
}
