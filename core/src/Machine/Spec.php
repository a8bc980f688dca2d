<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;

/**
 * One value of a part and what it rests on. A tolerance widens a quantity both ways, as a share of it.
 */
final readonly class Spec
{
    /**
     * @param  bool  $confirmed  the builder was asked about an unlikely magnitude and said it is right
     */
    public function __construct(
        public string $key,
        public Quantity|Range|string|bool $value,
        public Evidence $evidence,
        public ?string $source = null,
        public ?Quantity $tolerance = null,
        public bool $confirmed = false,
    ) {
    }

    /** The quantity itself; of a range, its middle is never guessed: the low end is taken. */
    public function nominal(): ?Quantity
    {
        return match (true) {
            $this->value instanceof Quantity => $this->value,
            $this->value instanceof Range => $this->value->low,
            default => null,
        };
    }

    public function lowest(): ?Quantity
    {
        return $this->tolerance !== null ? $this->nominal()?->times(1 - $this->tolerance->in('')) : $this->nominal();
    }

    public function highest(): ?Quantity
    {
        $top = $this->value instanceof Range ? $this->value->high : $this->nominal();

        return $this->tolerance !== null ? $top?->times(1 + $this->tolerance->in('')) : $top;
    }

    /** The upper end, as a rating that must not be passed: what is uncertain about it is taken off. */
    public function mostStood(): ?Quantity
    {
        $top = $this->value instanceof Range ? $this->value->high : $this->nominal();

        return $this->tolerance !== null ? $top?->times(1 - $this->tolerance->in('')) : $top;
    }

    /** The lower end, as the least that something needs: what is uncertain about it is put on. */
    public function leastNeeded(): ?Quantity
    {
        return $this->tolerance !== null ? $this->nominal()?->times(1 + $this->tolerance->in('')) : $this->nominal();
    }

    /** The same line of the sheet with one value, and no tolerance about it. */
    public function at(Quantity $value): self
    {
        return new self(...['value' => $value, 'tolerance' => null] + get_object_vars($this));
    }

    public function flag(): ?bool
    {
        return is_bool($this->value) ? $this->value : null;
    }

    public function choice(): ?string
    {
        return is_string($this->value) ? $this->value : null;
    }

    public function printed(): string
    {
        $tolerance = $this->tolerance === null ? '' : ' ± '.$this->tolerance->to('%');

        return match (true) {
            is_bool($this->value) => $this->value ? 'yes' : 'no',
            is_string($this->value) => $this->value,
            $this->value instanceof Range => $this->value->low.' to '.$this->value->high,
            default => $this->value.$tolerance,
        };
    }
}
