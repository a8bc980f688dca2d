<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** A figure a sheet must hold to be found: of one dimension, between two ends, of any line of it or of a named one. */
final readonly class WantedFigure
{
    /** A frame called 57 mm measures 56.4 mm: what is asked for without more is taken as about that. */
    private const ABOUT = 0.02;

    /**
     * @param  float|null  $low  in the SI unit of the dimension; null where there is no lower end
     * @param  float|null  $high  likewise; null where there is no upper end
     * @param  string  $text  as it is told back: "more than 1.5 N m"
     * @param  list<string>  $specs  keys of the lines of the sheet it may be; of any, where there is none
     * @param  string|null  $plain  the figure alone, as it may also stand in a name
     */
    private function __construct(
        public Dimension $dimension,
        public ?float $low,
        public ?float $high,
        public string $text,
        public array $specs = [],
        public ?string $plain = null,
    ) {
    }

    public static function above(Quantity $value): self
    {
        return new self($value->unit->dimension, self::si($value), null, "at least {$value}");
    }

    public static function below(Quantity $value): self
    {
        return new self($value->unit->dimension, null, self::si($value), "at most {$value}");
    }

    public static function between(Quantity $low, Quantity $high): self
    {
        return new self($low->unit->dimension, self::si($low), self::si($high), "{$low} to {$high}");
    }

    public static function about(Quantity $value): self
    {
        $size = self::si($value);
        $off = self::ABOUT * abs($size);

        return new self(
            $value->unit->dimension,
            $size - $off,
            $size + $off,
            "about {$value}",
            plain: mb_strtolower((string) preg_replace('/[\s\x{a0}\x{202f}]+/u', ' ', $value->text())),
        );
    }

    /**
     * @param  list<string>  $specs
     */
    public function of(string $name, array $specs): self
    {
        return new self($this->dimension, $this->low, $this->high, "{$name} {$this->text}", $specs);
    }

    /** Whether a line of a sheet that holds from one end to the other answers it. */
    public function isMetBy(Figure $figure): bool
    {
        return $figure->dimension === $this->dimension &&
            ($this->specs === [] || in_array($figure->spec, $this->specs, true)) &&
            ($this->low === null || $figure->high >= $this->low) &&
            ($this->high === null || $figure->low <= $this->high);
    }

    private static function si(Quantity $value): float
    {
        return $value->in($value->unit->dimension->unit());
    }
}
