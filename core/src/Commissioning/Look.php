<?php

declare(strict_types=1);

namespace Magpie\Core\Commissioning;

/** Something a rung asks one to look at or try, ticked once it was; on another part it is asked again. */
final readonly class Look
{
    public function __construct(public string $key, public string $says, public bool $done = false)
    {
    }
}
