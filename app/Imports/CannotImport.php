<?php

declare(strict_types=1);

namespace App\Imports;

use RuntimeException;

/** A list that cannot be stored into this build, and why. */
final class CannotImport extends RuntimeException
{
    public static function because(string $reason): self
    {
        return new self($reason);
    }
}
