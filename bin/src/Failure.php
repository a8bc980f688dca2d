<?php

declare(strict_types=1);

namespace Magpie\Bin;

use RuntimeException;

/** What went wrong and what to do, in one line. */
final class Failure extends RuntimeException
{
    public function __construct(string $message, public readonly int $status = 1)
    {
        parent::__construct($message);
    }
}
