<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity;

use Brick\Math\BigDecimal;
use Brick\Math\Exception\MathException;
use Brick\Math\RoundingMode;
use InvalidArgumentException;
use Stringable;

/**
 * An exact decimal amount in one currency (ISO 4217 code), rounded to cents only when it is shown or paid. Only turning
 * it at a rate given the other way round divides; twelve decimals are kept then.
 */
final readonly class Money implements Stringable
{
    private function __construct(private BigDecimal $amount, public string $currency)
    {
    }

    /**
     * @throws InvalidArgumentException when the amount is no decimal number
     */
    public static function of(string|int $amount, string $currency): self
    {
        try {
            return new self(BigDecimal::of($amount), $currency);
        } catch (MathException) {
            throw new InvalidArgumentException(
                sprintf('"%s" is not an amount of money; write it like "12.50".', $amount),
            );
        }
    }

    public static function zero(string $currency): self
    {
        return self::of(0, $currency);
    }

    public function plus(self $other): self
    {
        $this->alike($other);

        return new self($this->amount->plus($other->amount), $this->currency);
    }

    public function minus(self $other): self
    {
        $this->alike($other);

        return new self($this->amount->minus($other->amount), $this->currency);
    }

    public function times(int|Quantity $factor): self
    {
        return new self(
            $this->amount->multipliedBy($factor instanceof Quantity ? self::exact($factor) : $factor),
            $this->currency,
        );
    }

    /**
     * In another currency.
     *
     * @param  string  $worth  a decimal: what one unit of this one is worth there
     */
    public function at(string $worth, string $currency): self
    {
        return new self($this->amount->multipliedBy(BigDecimal::of($worth)), $currency);
    }

    /**
     * In another currency, at a rate that was given the other way round.
     *
     * @param  string  $worth  a decimal: what one unit of that one is worth in this
     */
    public function against(string $worth, string $currency): self
    {
        return new self($this->amount->dividedBy($worth, 12, RoundingMode::HALF_UP), $currency);
    }

    public function compare(self $other): int
    {
        $this->alike($other);

        return $this->amount->compareTo($other->amount);
    }

    public function isZero(): bool
    {
        return $this->amount->isZero();
    }

    public function isNegative(): bool
    {
        return $this->amount->isNegative();
    }

    /** Share of another amount. */
    public function shareOf(self $whole): Quantity
    {
        $this->alike($whole);
        if ($whole->isZero()) {
            return Quantity::ratio(0);
        }

        return Quantity::ratio((float) (string) $this->amount->dividedBy($whole->amount, 9, RoundingMode::HALF_UP));
    }

    /** The same to the cent, half up: what stands in a row, so that the rows add up to what stands under them. */
    public function cents(): self
    {
        return new self($this->amount->toScale(2, RoundingMode::HALF_UP), $this->currency);
    }

    /** Amount to the cent, half up. */
    public function amount(): string
    {
        return (string) $this->amount->toScale(2, RoundingMode::HALF_UP);
    }

    /** Amount with every digit that was given, and never fewer than two decimals. */
    public function exactAmount(): string
    {
        $exact = $this->amount->stripTrailingZeros();

        return (string) ($exact->getScale() < 2 ? $exact->toScale(2) : $exact);
    }

    public function __toString(): string
    {
        return $this->currency."\u{a0}".$this->amount();
    }

    private static function exact(Quantity $share): BigDecimal
    {
        return BigDecimal::of(sprintf('%.9F', $share->in('')));
    }

    private function alike(self $other): void
    {
        if ($this->currency !== $other->currency) {
            throw new InvalidArgumentException(
                "{$this->currency} and {$other->currency} cannot be added without a rate.",
            );
        }
    }
}
