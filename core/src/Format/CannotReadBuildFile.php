<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use RuntimeException;

/** Where in a build file something is wrong (a JSON pointer, RFC 6901) and why. */
final class CannotReadBuildFile extends RuntimeException
{
    private function __construct(public readonly string $pointer, public readonly string $reason)
    {
        parent::__construct(($pointer === '' ? 'the file' : $pointer).': '.$reason);
    }

    public static function at(string $pointer, string $reason): self
    {
        return new self($pointer, $reason);
    }
}
