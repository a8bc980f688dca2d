<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A need with the part chosen for it. */
final readonly class Fitted
{
    public function __construct(public Need $need, public Part $part)
    {
    }
}
