<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;

/**
 * One value of a part and what it rests on. A tolerance widens a quantity both ways, as a share of it.
 */
final readonly class Spec
{
    /**
     * @param  bool  $confirmed  the builder was asked about an unlikely magnitude and said it is right
     * @param  list<self>  $rivals  what others say of it, kept beside the one that counts
     * @param  self|null  $sheet  what stood there before a reading took its place
     */
    public function __construct(
        public string $key,
        public Quantity|Range|string|bool $value,
        public Evidence $evidence,
        public ?string $source = null,
        public ?Quantity $tolerance = null,
        public bool $confirmed = false,
        public array $rivals = [],
        public ?self $sheet = null,
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
        return self::off($this->nominal(), $this->tolerance, -1);
    }

    public function highest(): ?Quantity
    {
        return self::off($this->top(), $this->tolerance, 1);
    }

    /** The upper end, as a rating that must not be passed: what is uncertain about it is taken off. */
    public function mostStood(): ?Quantity
    {
        return self::off($this->top(), $this->tolerance, -1);
    }

    /** The lower end, as the least that something needs: what is uncertain about it is put on. */
    public function leastNeeded(): ?Quantity
    {
        return self::off($this->nominal(), $this->tolerance, 1);
    }

    private function top(): ?Quantity
    {
        return $this->value instanceof Range ? $this->value->high : $this->nominal();
    }

    /**
     * A value off by its tolerance, one way or the other. A share of a temperature is one of the number that is written:
     * 5 % of 65 °C are 3.25 °C, not a twentieth of what it is above absolute zero.
     */
    private static function off(?Quantity $value, ?Quantity $tolerance, int $way): ?Quantity
    {
        if ($value === null || $tolerance === null) {
            return $value;
        }
        $factor = 1 + $way * $tolerance->in('');

        return $value->unit->measures(Dimension::Temperature)
            ? Quantity::of($value->in($value->unit->symbol) * $factor, $value->unit->symbol)
            : $value->times($factor);
    }

    /** The same line of the sheet with one value, and no tolerance about it. */
    public function at(Quantity $value): self
    {
        return new self(...['value' => $value, 'tolerance' => null] + get_object_vars($this));
    }

    /** The same line with another claim in its place, and this one kept beside it. */
    public function giveWayTo(self $rival): self
    {
        $others = array_values(array_filter($this->rivals, static fn (self $one): bool => $one !== $rival));

        return new self(...['rivals' => [...$others, $this->alone()]] + get_object_vars($rival));
    }

    /** The same claim without the others. */
    public function alone(): self
    {
        return new self(...['rivals' => []] + get_object_vars($this));
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
