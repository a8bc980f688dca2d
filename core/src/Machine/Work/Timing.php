<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** A stretch of work, in Unix seconds; no stop while it runs, and who worked where somebody says. */
final readonly class Timing
{
    public function __construct(public int $start, public ?int $stop = null, public ?string $by = null)
    {
    }
}
