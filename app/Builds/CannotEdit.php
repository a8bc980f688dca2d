<?php

declare(strict_types=1);

namespace App\Builds;

use RuntimeException;

/** An edit that makes no sense, with the place in the build it is about. */
final class CannotEdit extends RuntimeException
{
    private function __construct(public readonly string $pointer, string $reason)
    {
        parent::__construct($reason);
    }

    public static function at(string $pointer, string $reason): self
    {
        return new self($pointer, $reason);
    }
}
