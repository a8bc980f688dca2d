<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

/** Why something is in no sum. */
enum Lack: string
{
    case Choice = 'choice';
    case Rate = 'rate';
    case Price = 'price';
    case Plastic = 'plastic';
    case Shipping = 'shipping';
    case Purchase = 'purchase';

    /** "11 parts without a rate", to stand beside the sum. */
    public function counted(int $of): string
    {
        [$one, $many] = match ($this) {
            self::Choice => ['part not chosen', 'parts not chosen'],
            self::Rate => ['part without a rate', 'parts without a rate'],
            self::Price => ['part without a price', 'parts without a price'],
            self::Plastic => ['printed part without its plastic', 'printed parts without their plastic'],
            self::Shipping => ['shipping not known', 'shippings not known'],
            self::Purchase => ['purchase without a rate', 'purchases without a rate'],
        };

        return "{$of} ".($of === 1 ? $one : $many);
    }
}
