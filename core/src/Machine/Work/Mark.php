<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/** A spot on a picture, in thousandths of its width and height from the upper left corner. */
final readonly class Mark
{
    public function __construct(public string $photo, public int $x, public int $y)
    {
    }
}
