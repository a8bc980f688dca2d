<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

/** What was not taken, and why. */
final readonly class Rejection
{
    public function __construct(public string $what, public ?string $why = null)
    {
    }
}
