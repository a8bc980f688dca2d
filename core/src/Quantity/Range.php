<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity;

use Magpie\Core\Quantity\Exception\CannotReadQuantity;

/**
 * From one quantity to another of the same kind: "10 V to 30 V".
 */
final readonly class Range
{
    private function __construct(public Quantity $low, public Quantity $high)
    {
    }

    public static function between(Quantity $low, Quantity $high): self
    {
        return $high->isBelow($low) ? new self($high, $low) : new self($low, $high);
    }

    /**
     * Reads "10 V to 30 V", "10–30 V", "12...24V" or a single value, which is a range of no width.
     *
     * @throws CannotReadQuantity
     */
    public static function parse(string $text, Dimension $wanted, ?string $assumedUnit = null): self
    {
        $parts = preg_split('/\s+to\s+|\s*(?:–|—|\.\.\.?|…)\s*|(?<=[\dA-Za-z°%])\s*-\s*(?=\d)/u', trim($text)) ?: [];
        if (count($parts) === 1) {
            $only = Quantity::parse($parts[0], $wanted, $assumedUnit);

            return new self($only, $only);
        }
        if (count($parts) !== 2) {
            throw CannotReadQuantity::notANumber($text, $wanted);
        }
        $high = Quantity::parse($parts[1], $wanted, $assumedUnit);

        return self::between(Quantity::parse($parts[0], $wanted, $high->unit->symbol), $high);
    }

    public function contains(Quantity $value): bool
    {
        return ! $value->isBelow($this->low) && ! $value->exceeds($this->high);
    }

    public function text(): string
    {
        return $this->low->text().' to '.$this->high->text();
    }
}
