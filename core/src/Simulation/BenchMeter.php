<?php

declare(strict_types=1);

namespace Magpie\Core\Simulation;

use Magpie\Core\Machine\Work\StepCheck;
use Magpie\Core\Quantity\Quantity;

/**
 * Stands in for a meter or dial indicator: reads near nominal, within about one and a third tolerances. The same seed
 * always reads the same.
 */
final readonly class BenchMeter
{
    public function __construct(private int $seed)
    {
    }

    public function read(StepCheck $check): Quantity
    {
        // A linear congruential step (constants of ISO C's sample rand) spreads the seed over 0 … 1.
        $spread = ((($this->seed * 1103515245 + 12345) >> 8) & 0xFFFF) / 0xFFFF;
        $off = $check->tolerance->times(($spread - 0.5) * 2.6);
        $value = $check->nominal->plus($off);
        $symbol = $check->nominal->unit->symbol;
        $step = max(1e-9, abs($check->tolerance->in($check->tolerance->unit->symbol)) / 20);
        $rounded = round($value->in($symbol) / $step) * $step;

        return Quantity::of(round($rounded, 6), $symbol);
    }
}
