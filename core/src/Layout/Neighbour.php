<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** Something hot, and how near it comes. */
final readonly class Neighbour
{
    /**
     * @param  string  $key  line of its sheet that says how hot its skin gets
     * @param  float  $gap  mm at the closest, nought where they touch
     */
    public function __construct(public string $need, public string $key, public float $gap)
    {
    }
}
