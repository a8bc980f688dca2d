<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use InvalidArgumentException;

/** Something that takes days, between how long at the least and how long at the most, and what has to be done before. */
final readonly class Activity
{
    /**
     * @param  list<string>  $after  keys of what has to be done before
     *
     * @throws InvalidArgumentException where the days are out of order or below nought
     */
    public function __construct(
        public string $key,
        public string $label,
        public float $least,
        public float $likely,
        public float $most,
        public array $after = [],
        public string $kind = 'work',
    ) {
        if (! ($least >= 0 && $least <= $likely && $likely <= $most && is_finite($most))) {
            throw new InvalidArgumentException("{$label}: its days must go up from least over likely to most.");
        }
    }

    /** Of a fixed length. */
    public static function of(string $key, float $days, string ...$after): self
    {
        return new self($key, $key, $days, $days, $days, array_values($after));
    }

    /** Expected days of the three-point estimate (PERT): (a + 4 m + b) / 6. */
    public function mean(): float
    {
        return ($this->least + 4 * $this->likely + $this->most) / 6;
    }
}
