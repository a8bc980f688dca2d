<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity\Exception;

use ArithmeticError;

/** A calculation left the numbers: it overflowed, or asked for something like the root of less than nought. */
final class NotFinite extends ArithmeticError
{
    public static function inUnit(string $symbol): self
    {
        return new self(
            $symbol === ''
                ? 'A ratio came out as no finite number.'
                : "A size in {$symbol} came out as no finite number.",
        );
    }
}
