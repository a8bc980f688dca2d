<?php

declare(strict_types=1);

namespace App\Builds;

use RuntimeException;

/** What an edit started from is no longer there: another screen changed it in the meantime. */
final class Conflict extends RuntimeException
{
    /**
     * @param  list<array{section: string, ref: string, path: list<string|int>, was: mixed, now: mixed}>  $clashes
     */
    public function __construct(public readonly array $clashes)
    {
        parent::__construct('Another screen changed this in the meantime. Nothing of yours was stored.');
    }
}
