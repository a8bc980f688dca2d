<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** One of several that fill a need, where it matters which: the left motor, the rail of the second batch. */
final readonly class Piece
{
    /**
     * @param  string|null  $batch  what is printed on it or its bag
     */
    public function __construct(public string $name, public ?string $batch = null)
    {
    }
}
