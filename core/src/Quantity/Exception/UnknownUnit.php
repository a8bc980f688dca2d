<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity\Exception;

final class UnknownUnit extends CannotReadQuantity
{
    public static function spelt(string $spelling): self
    {
        return new self(sprintf('"%s" is not a unit known here.', $spelling));
    }
}
