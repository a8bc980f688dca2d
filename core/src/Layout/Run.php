<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

/** A way from point to point: what of it lies in which channel, and what outside, in mm. */
final readonly class Run
{
    /**
     * @param  array<string, float>  $inside  by channel
     * @param  list<array{float, float, float}>  $points
     */
    public function __construct(public float $outside, public array $inside, public array $points)
    {
    }
}
