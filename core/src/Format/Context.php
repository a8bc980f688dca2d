<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\Buying\Supplier;

/** What an entry must know of its file to be read: the families, the build's currency, the suppliers read so far. */
final readonly class Context
{
    /**
     * @param  array<string, Supplier>  $suppliers
     */
    public function __construct(public Catalogue $catalogue, public string $currency, public array $suppliers = [])
    {
    }
}
