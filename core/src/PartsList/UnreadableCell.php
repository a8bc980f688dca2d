<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use RuntimeException;

final class UnreadableCell extends RuntimeException
{
    public static function because(string $reason): self
    {
        return new self($reason);
    }
}
