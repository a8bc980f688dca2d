<?php

declare(strict_types=1);

namespace App\Builds;

use Brick\Math\BigDecimal;

/** One column of a table and the place of its value in an entry of the build file. */
final readonly class Column
{
    private function __construct(
        public string $name,
        public string $path,
        public string $kind,
        public ?string $of = null,
    ) {
    }

    public static function text(string $name, ?string $path = null): self
    {
        return new self($name, $path ?? $name, 'text');
    }

    public static function whole(string $name, ?string $path = null): self
    {
        return new self($name, $path ?? $name, 'whole');
    }

    public static function flag(string $name, ?string $path = null): self
    {
        return new self($name, $path ?? $name, 'flag');
    }

    /** A decimal kept exactly, shown with at least so many places. */
    public static function decimal(string $name, ?string $path = null): self
    {
        return new self($name, $path ?? $name, 'decimal');
    }

    public static function factor(string $name): self
    {
        return new self($name, $name, 'factor');
    }

    /** The id of an entry of another collection, named in the file by its ref. */
    public static function link(string $name, string $of, ?string $path = null): self
    {
        return new self($name, $path ?? $name, 'link', $of);
    }

    public function toRow(mixed $value): mixed
    {
        return match ($this->kind) {
            'text' => is_string($value) ? $value : null,
            'flag' => is_bool($value) ? $value : null,
            default => $value,
        };
    }

    public function fromRow(mixed $value): mixed
    {
        return match (true) {
            $value === null => null,
            $this->kind === 'whole' && is_numeric($value) => (int) $value,
            $this->kind === 'flag' => (bool) $value,
            $this->kind === 'decimal' && is_string($value) => self::plain($value, 2),
            $this->kind === 'factor' && is_string($value) => self::plain($value, 0),
            default => $value,
        };
    }

    private static function plain(string $decimal, int $places): string
    {
        $number = BigDecimal::of($decimal)->stripTrailingZeros();

        return (string) ($number->getScale() < $places ? $number->toScale($places) : $number);
    }
}
