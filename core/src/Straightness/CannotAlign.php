<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness;

use RuntimeException;

/** Readings an alignment cannot be worked from: which of them, and why. */
final class CannotAlign extends RuntimeException
{
    public function __construct(public readonly string $field, string $reason)
    {
        parent::__construct($reason);
    }
}
