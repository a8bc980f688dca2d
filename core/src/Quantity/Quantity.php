<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity;

use LogicException;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Exception\NotFinite;
use Magpie\Core\Quantity\Exception\UnknownUnit;
use Magpie\Core\Quantity\Exception\WrongDimension;
use Stringable;

/**
 * A magnitude with its unit: held as the builder wrote it, computed with in SI. Immutable.
 */
final readonly class Quantity implements Stringable
{
    private function __construct(private float $magnitude, public Unit $unit, private float $si)
    {
    }

    /**
     * @throws UnknownUnit
     * @throws NotFinite
     */
    public static function of(int|float|string $magnitude, string $unit): self
    {
        $unit = Units::named($unit);
        $magnitude = (float) $magnitude;
        $si = $unit->toSi($magnitude);
        if (! is_finite($magnitude) || ! is_finite($si)) {
            throw NotFinite::inUnit($unit->symbol);
        }

        return new self($magnitude, $unit, $si);
    }

    public static function ratio(int|float $share): self
    {
        return self::si((float) $share, Units::named(''));
    }

    /**
     * Reads what a builder types: "24V", "0.75 mm²", "18 AWG", "1 1/2 in", "283 oz-in", "1,5 kW".
     *
     * @param  Dimension  $wanted  what the text must measure
     * @param  string|null  $assumedUnit  unit taken when the text is a bare number
     *
     * @throws CannotReadQuantity
     */
    public static function parse(string $text, Dimension $wanted, ?string $assumedUnit = null): self
    {
        $given = trim(str_replace(["\u{a0}", "\u{2009}", "\u{202f}", '−'], [' ', ' ', ' ', '-'], $text));
        if (preg_match('/^(?:awg|gauge)\s*(\d{1,2})$/i', $given, $m) === 1) {
            $given = $m[1].' AWG';
        }
        $number = '[+-]?(?:\d+\s+\d+\/\d+|\d+\/\d+|\d[\d,\'’]*(?:\.\d+)?|\.\d+)(?:[eE][+-]?\d{1,3})?';
        if (preg_match('/^('.$number.')\s*(\S.*)?$/u', $given, $m) !== 1) {
            throw CannotReadQuantity::notANumber($text, $wanted);
        }
        $magnitude = self::number($m[1], $text);
        $spelling = trim($m[2] ?? '');
        if ($spelling === '' && $wanted !== Dimension::Ratio) {
            if ($assumedUnit === null) {
                throw CannotReadQuantity::noUnit($text, $wanted);
            }
            $spelling = $assumedUnit;
        }
        $unit = self::unitFor($spelling, $wanted);
        if (! $unit->measures($wanted)) {
            throw WrongDimension::of($text, $unit->dimension, $wanted);
        }
        $si = $unit->toSi($magnitude);
        if (! is_finite($magnitude) || ! is_finite($si) || abs($si) > 1e15) {
            throw CannotReadQuantity::tooLarge($text);
        }

        return new self($magnitude, $unit, $si);
    }

    /** The magnitude in a unit: the one way out to a bare number, for pictures, files and databases. */
    public function in(string $unit): float
    {
        $to = Units::named($unit);
        if ($to->exponents !== $this->unit->exponents) {
            throw new LogicException("A quantity in {$this->unit->symbol} cannot be shown in {$unit}.");
        }

        return $to === $this->unit ? $this->magnitude : $to->fromSi($this->si);
    }

    /**
     * The same quantity in another unit of its kind.
     */
    public function to(string $unit): self
    {
        $to = Units::named($unit);

        return $to === $this->unit ? $this : new self($this->in($unit), $to, $this->si);
    }

    public function plus(self $other): self
    {
        return $this->combine($other, $this->si + $other->si);
    }

    public function minus(self $other): self
    {
        if ($this->unit->dimension === Dimension::Temperature && $other->unit->dimension === Dimension::Temperature) {
            return self::si($this->si - $other->si, Units::named('K'));
        }

        return $this->combine($other, $this->si - $other->si);
    }

    public function times(self|int|float $other): self
    {
        return $other instanceof self
            ? self::si(
                $this->si * $other->si,
                Unit::derived(self::add($this->unit->exponents, $other->unit->exponents, 1)),
            )
            : self::si($this->si * $other, $this->unit);
    }

    /**
     * @throws \DivisionByZeroError
     */
    public function over(self|int|float $other): self
    {
        $divisor = $other instanceof self ? $other->si : (float) $other;
        if ($divisor === 0.0) {
            throw new \DivisionByZeroError('A quantity was divided by nought.');
        }

        return $other instanceof self
            ? self::si(
                $this->si / $divisor,
                Unit::derived(self::add($this->unit->exponents, $other->unit->exponents, -1)),
            )
            : self::si($this->si / $divisor, $this->unit);
    }

    public function squared(): self
    {
        return $this->times($this);
    }

    public function compare(self $other): int
    {
        $this->alike($other);
        // A hair of slack, so that 8 A worked out by a division is not above a limit of 8 A.
        $slack = 1e-9 * max(abs($this->si), abs($other->si));

        return abs($this->si - $other->si) <= $slack ? 0 : $this->si <=> $other->si;
    }

    public function exceeds(self $other): bool
    {
        return $this->compare($other) > 0;
    }

    public function isBelow(self $other): bool
    {
        return $this->compare($other) < 0;
    }

    public function isZero(): bool
    {
        return $this->si === 0.0;
    }

    public function isPositive(): bool
    {
        return $this->si > 0.0;
    }

    public static function max(self $first, self ...$others): self
    {
        foreach ($others as $other) {
            $first = $other->exceeds($first) ? $other : $first;
        }

        return $first;
    }

    public static function min(self $first, self ...$others): self
    {
        foreach ($others as $other) {
            $first = $other->isBelow($first) ? $other : $first;
        }

        return $first;
    }

    /** Rounded to so many significant figures, in its own unit: what is proposed is a number one would write. */
    public function rounded(int $figures): self
    {
        return self::of(self::significant($this->magnitude, $figures), $this->unit->symbol);
    }

    /** As a file keeps it, every digit: "0.75 mm²". */
    public function text(): string
    {
        return rtrim(self::digits($this->magnitude).' '.$this->unit->symbol);
    }

    /** As a sentence says it, with the figures a builder would: "0.475 A". */
    public function __toString(): string
    {
        return $this->shown(3);
    }

    /** Rounded to so many significant figures, whole numbers kept whole. */
    public function shown(int $figures): string
    {
        $rounded = self::digits(self::significant($this->magnitude, $figures));

        return $this->unit->symbol === ''
            ? $rounded
            : $rounded."\u{a0}".str_replace(' ', "\u{a0}", $this->unit->symbol);
    }

    /** @throws NotFinite */
    private static function si(float $si, Unit $unit): self
    {
        $magnitude = $unit->fromSi($si);
        if (! is_finite($si) || ! is_finite($magnitude)) {
            throw NotFinite::inUnit($unit->symbol);
        }

        return new self($magnitude, $unit, $si);
    }

    private function combine(self $other, float $si): self
    {
        $this->alike($other);

        return self::si($si, $this->unit);
    }

    private function alike(self $other): void
    {
        if ($this->unit->exponents !== $other->unit->exponents) {
            throw new LogicException("{$this->text()} and {$other->text()} are not of one kind.");
        }
    }

    private static function add(string $a, string $b, int $sign): string
    {
        static $sums = [];

        return $sums[$a.'|'.$b.'|'.$sign] ??= implode(
            ',',
            array_map(
                static fn (string $x, string $y): int => (int) $x + $sign * (int) $y,
                explode(',', $a),
                explode(',', $b),
            ),
        );
    }

    /**
     * @throws CannotReadQuantity
     */
    private static function number(string $digits, string $text): float
    {
        if (preg_match('/^([+-]?)(?:(\d+)\s+)?(\d+)\/(\d+)$/', $digits, $m) === 1) {
            if ((int) $m[4] === 0) {
                throw CannotReadQuantity::notANumber($text, Dimension::Ratio);
            }
            $value = (float) $m[2] + (float) $m[3] / (float) $m[4];

            return $m[1] === '-' ? -$value : $value;
        }
        $digits = str_replace(["'", '’'], '', $digits);
        if (str_contains($digits, ',')) {
            $grouped = preg_match('/^[+-]?\d{1,3}(,\d{3})+(\.\d+)?$/', $digits) === 1;
            if ($grouped && ! str_contains($digits, '.') && substr_count($digits, ',') === 1) {
                throw CannotReadQuantity::ambiguousComma($text);
            }
            if (! $grouped && (substr_count($digits, ',') > 1 || str_contains($digits, '.'))) {
                throw CannotReadQuantity::ambiguousComma($text);
            }
            $digits = $grouped ? str_replace(',', '', $digits) : str_replace(',', '.', $digits);
        }

        return (float) $digits;
    }

    /** Some spellings mean different things on different sheets: "kg cm" is a torque to motor makers. */
    private static function unitFor(string $spelling, Dimension $wanted): Unit
    {
        if ($spelling === 'C' || $spelling === 'F') {
            $spelling = match (true) {
                $wanted === Dimension::Temperature => '°'.$spelling,
                default => $spelling,
            };
        }
        if ($wanted === Dimension::TemperatureDifference) {
            // A degree of difference is a kelvin, or five ninths of one.
            $spelling = match ($spelling) {
                '°C', 'degC', 'deg C', 'C' => 'K',
                '°F', 'degF', 'deg F', 'F' => 'Δ°F',
                default => $spelling,
            };
        }

        return Units::named($spelling);
    }

    private static function significant(float $value, int $figures): float
    {
        if ($value === 0.0 || ! is_finite($value)) {
            return $value;
        }
        $places = $figures - 1 - (int) floor(log10(abs($value)));

        return round($value, max($places, 0));
    }

    /** Shortest digits that read back as the same number, never in exponent form for usual sizes. */
    private static function digits(float $value): string
    {
        $text = (string) json_encode($value);
        if (stripos($text, 'e') === false) {
            return preg_replace('/\.0$/', '', $text) ?? $text;
        }
        if (abs($value) >= 1e15 || ($value !== 0.0 && abs($value) < 1e-12)) {
            return $text;
        }
        [$mantissa, $exponent] = explode('e', strtolower($text));
        $decimals = max(0, strlen(rtrim(explode('.', $mantissa)[1] ?? '', '0')) - (int) $exponent);

        return number_format($value, $decimals, '.', '');
    }
}
