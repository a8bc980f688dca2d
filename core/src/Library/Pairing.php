<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

/** Two things that are said not to go together, with reports of both outcomes. */
final readonly class Pairing
{
    /**
     * @param  string  $with  the other thing, in words or by its library entry
     * @param  int  $bad  reports that it failed
     * @param  int  $good  reports that it worked
     */
    public function __construct(public string $with, public string $what, public int $bad = 1, public int $good = 0)
    {
    }
}
