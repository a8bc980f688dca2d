<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Inspection\Check;

/** Checks on cost and supply. */
final class SupplyRules
{
    /**
     * @return list<Check>
     */
    public static function all(): array
    {
        return [new Budget, new SmallParts];
    }
}
