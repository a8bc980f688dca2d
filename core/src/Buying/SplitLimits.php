<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Quantity\Money;

/** What a split has to keep to, beside what the build says of its suppliers and prices. */
final readonly class SplitLimits
{
    /**
     * @param  int|null  $days  from the order to the last arrival, at the most
     * @param  int|null  $most  suppliers at the most
     * @param  list<string>  $without  suppliers that are left out
     * @param  Money|null  $ceiling  spent at the most, in the build's currency: then what is here soonest within it is looked for
     * @param  float  $seconds  after which it stops with the gap that is left
     */
    public function __construct(
        public ?int $days = null,
        public ?int $most = null,
        public array $without = [],
        public float $seconds = 4.0,
        public ?Money $ceiling = null,
    ) {
    }

    public function within(?int $days): self
    {
        return new self($days, $this->most, $this->without, $this->seconds, $this->ceiling);
    }

    public function from(?int $most): self
    {
        return new self($this->days, $most, $this->without, $this->seconds, $this->ceiling);
    }

    /**
     * @param  list<string>  $without
     */
    public function leaving(array $without): self
    {
        return new self($this->days, $this->most, $without, $this->seconds, $this->ceiling);
    }
}
