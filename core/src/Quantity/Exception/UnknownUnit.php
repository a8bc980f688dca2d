<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity\Exception;

final class UnknownUnit extends CannotReadQuantity
{
    /** One that is known when its first letter is written otherwise: mega is no milli. */
    public static function capital(string $spelling): self
    {
        return new self(sprintf('"%s" is not a unit known here: M is mega, m is milli.', $spelling));
    }

    public static function spelt(string $spelling): self
    {
        return new self(sprintf('"%s" is not a unit known here.', $spelling));
    }
}
