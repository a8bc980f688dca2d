<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Machine\Build;

/**
 * A build laid out for inspection: what several checks need is worked out here once.
 */
final class Bench
{
    private ?Circuits $circuits = null;

    public function __construct(public readonly Build $build)
    {
    }

    public function circuits(): Circuits
    {
        return $this->circuits ??= new Circuits($this->build);
    }
}
