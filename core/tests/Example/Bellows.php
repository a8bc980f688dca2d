<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Example;

use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Quantity\Dimension;

/** An example family: in the core it would be one file in Families, and nothing else would name it. */
final class Bellows extends Family
{
    public function key(): string
    {
        return 'bellows';
    }

    public function title(): string
    {
        return 'way bellows';
    }

    public function trade(): Trade
    {
        return Trade::Mechanical;
    }

    public function sheet(): array
    {
        return [
            SpecField::quantity('closed', 'Length pushed together', Dimension::Length, 'mm', ['5 mm', '1 m']),
            SpecField::quantity('open', 'Length drawn out', Dimension::Length, 'mm', ['20 mm', '5 m'])->moreIsBetter(),
        ];
    }
}
