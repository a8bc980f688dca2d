<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/** One resonance: where, how high, how well it dies away. */
final readonly class Peak
{
    /**
     * @param  float  $frequency  Hz
     * @param  float  $damping  share of the critical; the most it can be where it is not known
     * @param  bool  $isDampingKnown  the peak is wider than the window alone makes one
     * @param  float  $share  of all power above what was left out
     */
    public function __construct(
        public float $frequency,
        public float $height,
        public float $damping,
        public float $share,
        public bool $isDampingKnown = true,
    ) {
    }
}
