<?php

declare(strict_types=1);

namespace Magpie\Core\Quantity;

/**
 * A unit as a builder writes it, and how to reach SI from it. Wire gauges are units of area that are not linear.
 */
final readonly class Unit
{
    private function __construct(
        public string $symbol,
        public Dimension $dimension,
        public string $exponents,
        private float $factor,
        private float $offset,
        private bool $gauge,
    ) {
    }

    public static function linear(string $symbol, Dimension $dimension, float $factor, float $offset = 0.0): self
    {
        return new self($symbol, $dimension, $dimension->exponents(), $factor, $offset, false);
    }

    /**
     * Wire gauge as an area of conductor: d = 0.127 mm × 92^((36 − n)/39), ASTM B258.
     */
    public static function wireGauge(): self
    {
        return new self('AWG', Dimension::Area, Dimension::Area->exponents(), 1.0, 0.0, true);
    }

    /** A coherent SI product that has no name of its own. */
    public static function derived(string $exponents): self
    {
        $named = Dimension::ofExponents($exponents);
        if ($named !== Dimension::Derived) {
            return Units::named($named->unit());
        }
        static $made = [];

        return $made[$exponents] ??= new self(self::spell($exponents), Dimension::Derived, $exponents, 1.0, 0.0, false);
    }

    public function toSi(float $magnitude): float
    {
        if ($this->gauge) {
            return (M_PI / 4) * (0.127e-3 * 92 ** ((36 - $magnitude) / 39)) ** 2;
        }

        return ($magnitude + $this->offset) * $this->factor;
    }

    public function fromSi(float $si): float
    {
        if ($this->gauge) {
            return 36 - (39 * log(sqrt(($si * 4) / M_PI) / 0.127e-3)) / log(92);
        }

        return $si / $this->factor - $this->offset;
    }

    public function measures(Dimension $dimension): bool
    {
        return $this->dimension === $dimension ||
            ($this->exponents === Dimension::Temperature->exponents() &&
                $this->symbol === 'K' &&
                in_array($dimension, [Dimension::Temperature, Dimension::TemperatureDifference], true));
    }

    private static function spell(string $exponents): string
    {
        $names = ['kg', 'm', 's', 'A', 'K'];
        $spelt = [];
        foreach (explode(',', $exponents) as $i => $power) {
            if ($power !== '0') {
                $spelt[] = $names[$i].($power === '1' ? '' : '^'.$power);
            }
        }

        return implode(' ', $spelt);
    }
}
