<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use BackedEnum;
use DateTimeImmutable;
use InvalidArgumentException;
use Magpie\Core\Quantity\Bounds;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Quantity\Quantity;

/**
 * A place in decoded JSON: reads its members by kind and says by pointer what is wrong. Unknown members are refused.
 */
final class Node
{
    public const REF = '/^[A-Za-z0-9][\w-]{0,63}$/';

    /** Entries of a list, and members of an object, unless more are asked for. */
    private const MOST = 2_000;

    /** Control characters but tab and line ends; a text with one of them cannot be shown, printed or searched. */
    public const CONTROLS = '/[\x00-\x08\x0B\x0C\x0E-\x1F\x7F]/';

    /** Seconds since 1970 of a clock that is still right: the year 2200. */
    private const LATEST = 7_258_118_400;

    /** The largest whole number that was ever kept: what a column of the database holds. */
    private const MOST_KEPT = 4_294_967_295;

    /** @var array<int|string, true> */
    private array $seen = [];

    /** @var array<string, self> */
    private array $parts = [];

    private readonly bool $kept;

    /**
     * @param  bool  $kept  it was accepted before: what could be written then is still read, however unlikely it is
     */
    public function __construct(
        private readonly mixed $value,
        private readonly string $base = '',
        private readonly ?self $parent = null,
        bool $kept = false,
    ) {
        $this->kept = $parent !== null ? $parent->kept : $kept;
    }

    /** True when sizes that nothing can have are refused here, as they are wherever something new comes in. */
    public function isNew(): bool
    {
        return ! $this->kept;
    }

    /**
     * @throws CannotReadBuildFile
     */
    public function fail(string $reason, ?string $member = null): never
    {
        throw CannotReadBuildFile::at(
            $this->pointer().($member === null ? '' : '/'.self::escaped($member)),
            $reason,
        );
    }

    public function has(string $key): bool
    {
        return isset($this->object()[$key]);
    }

    /** A member that is known already and not read again. */
    public function leave(string $key): void
    {
        $this->seen[$key] = true;
    }

    public function raw(): mixed
    {
        return $this->value;
    }

    public function member(string $key): self
    {
        return new self($this->take($key), $key, $this);
    }

    /** A member that holds named members itself; an empty one when it is not there. Asked for twice it is the same. */
    public function part(string $key): self
    {
        return $this->parts[$key] ??= new self($this->take($key) ?? [], $key, $this);
    }

    /**
     * @return list<string>
     */
    public function names(): array
    {
        return array_map(strval(...), array_keys($this->object()));
    }

    /**
     * Members by name; a name of digits only gets an "n" before it, as in ref().
     *
     * @return array<string, self>
     */
    public function members(string $key, int $most = self::MOST): array
    {
        if (! $this->has($key)) {
            $this->seen[$key] = true;

            return [];
        }
        $node = $this->member($key);
        $members = $node->object();
        if (count($members) > $most) {
            $node->fail("has more than {$most} members.");
        }
        $found = [];
        foreach ($members as $name => $value) {
            $found[self::named((string) $name)] = new self($value, (string) $name, $node);
        }

        return $found;
    }

    /**
     * @return list<self>
     */
    public function items(string $key, int $most = self::MOST): array
    {
        $values = $this->take($key) ?? [];
        if (! is_array($values) || ! array_is_list($values)) {
            $this->fail('must be a list.', $key);
        }
        if (count($values) > $most) {
            $this->fail("has more than {$most} entries.", $key);
        }
        $list = new self($values, $key, $this);
        $found = [];
        foreach ($values as $i => $value) {
            $found[] = new self($value, (string) $i, $list);
        }

        return $found;
    }

    public function text(string $key, int $longest = 200): string
    {
        return $this->optionalText($key, $longest) ?? $this->fail('is missing.', $key);
    }

    public function optionalText(string $key, int $longest = 200): ?string
    {
        $value = $this->take($key);
        if ($value === null || $value === '') {
            return null;
        }
        if (! is_string($value)) {
            $this->fail('must be a text.', $key);
        }
        if (mb_strlen($value) > $longest) {
            $this->fail("is longer than {$longest} characters.", $key);
        }
        if (self::holdsControls($value)) {
            $this->fail('holds a control character that no keyboard types.', $key);
        }

        return $value;
    }

    public function ref(string $key): string
    {
        return $this->optionalRef($key) ?? $this->fail('is missing.', $key);
    }

    public function optionalRef(string $key): ?string
    {
        $value = $this->optionalText($key, 1000);
        if ($value !== null && preg_match(self::REF, $value) !== 1) {
            $this->fail('must be a short name of letters, digits, "-" and "_", such as "motor-x".', $key);
        }

        return $value === null ? null : self::named($value);
    }

    /**
     * @return list<string> short names
     */
    public function refs(string $key, int $most = self::MOST): array
    {
        return array_map(self::named(...), $this->texts($key, 64, $most));
    }

    /**
     * PHP takes a key of digits only for a number, and then it is no name any more: "608" is read as "n608".
     */
    public static function named(string $name): string
    {
        return is_int(array_key_first([$name => true])) ? "n{$name}" : $name;
    }

    /**
     * @return list<string>
     */
    public function texts(string $key, int $longest = 200, int $most = self::MOST): array
    {
        $found = [];
        foreach ($this->items($key, $most) as $item) {
            if (! is_string($item->value) || $item->value === '' || mb_strlen($item->value) > $longest) {
                $item->fail("must be a text of at most {$longest} characters.");
            }
            if (self::holdsControls($item->value)) {
                $item->fail('holds a control character that no keyboard types.');
            }
            $found[] = $item->value;
        }

        return $found;
    }

    public function whole(string $key, int $default, int $least = 0, int $most = 1_000_000): int
    {
        return $this->optionalWhole($key, $least, $most) ?? $default;
    }

    public function optionalWhole(string $key, int $least = 0, int $most = 1_000_000): ?int
    {
        $value = $this->take($key);
        if ($value === null) {
            return null;
        }
        if (! is_int($value) || $value < $least || $value > ($this->kept ? max($most, self::MOST_KEPT) : $most)) {
            $this->fail("must be a whole number from {$least} to {$most}.", $key);
        }

        return $value;
    }

    /** A moment, as seconds since 1970. */
    public function moment(string $key): int
    {
        return $this->optionalMoment($key) ?? $this->fail('is missing; it is a moment in seconds since 1970.', $key);
    }

    public function optionalMoment(string $key): ?int
    {
        return $this->optionalWhole($key, 0, self::LATEST);
    }

    public function optionalFlag(string $key): ?bool
    {
        $value = $this->take($key);
        if ($value !== null && ! is_bool($value)) {
            $this->fail('must be true or false.', $key);
        }

        return $value;
    }

    public function quantity(string $key, Dimension $dimension, bool $signed = false): Quantity
    {
        return $this->optionalQuantity($key, $dimension, $signed) ?? $this->fail('is missing.', $key);
    }

    public function optionalQuantity(string $key, Dimension $dimension, bool $signed = false): ?Quantity
    {
        $value = $this->take($key);

        return $value === null || $value === '' ? null : $this->member($key)->asQuantity($dimension, $signed);
    }

    /** A length that something has: never nought. */
    public function optionalLength(string $key): ?Quantity
    {
        $length = $this->optionalQuantity($key, Dimension::Length);
        if ($length?->isPositive() === false) {
            $this->fail('must be longer than nought.', $key);
        }

        return $length;
    }

    /** A size within what its field allows, both ends taken; "30 s" and "3 h" say the range. */
    public function optionalWithin(string $key, Dimension $dimension, string $least, string $most): ?Quantity
    {
        $value = $this->optionalQuantity($key, $dimension);
        $why =
            $value === null || $this->kept
                ? null
                : Bounds::outside($value, Quantity::parse($least, $dimension), Quantity::parse($most, $dimension));
        if ($why !== null) {
            $this->fail($why, $key);
        }

        return $value;
    }

    public function asQuantity(Dimension $dimension, bool $signed = false): Quantity
    {
        if (! is_string($this->value)) {
            $this->fail('must be a text with a unit, such as "24 V".');
        }
        try {
            $quantity = Quantity::parse($this->value, $dimension);
        } catch (CannotReadQuantity $e) {
            $this->fail($e->getMessage());
        }
        $zero = Quantity::of(0, $dimension->unit());
        if (! $signed && ! $this->kept && $dimension !== Dimension::Temperature && $quantity->isBelow($zero)) {
            $this->fail("cannot be negative ({$quantity->text()}).");
        }
        $why = $this->kept ? null : Bounds::refusal($quantity);
        if ($why !== null) {
            $this->fail($why);
        }

        return $quantity;
    }

    public function money(string $key, string $currency): Money
    {
        return $this->optionalMoney($key, $currency) ?? $this->fail('is missing.', $key);
    }

    public function optionalMoney(string $key, string $currency): ?Money
    {
        $value = $this->optionalText($key, 40);
        if ($value === null) {
            return null;
        }
        try {
            $value = self::decimal($value);
            if (preg_match('/^\d{1,9}(\.\d{1,6})?$/', $value) !== 1) {
                $this->fail(
                    sprintf('"%s" is not an amount of money; write it like "12.50", not negative.', $value),
                    $key,
                );
            }

            return Money::of($value, $currency);
        } catch (InvalidArgumentException $e) {
            $this->fail($e->getMessage(), $key);
        }
    }

    /**
     * A decimal number however its writer parts it: with both signs the last one is the decimal sign. A comma before one or two
     * digits is one too; before three it could be either, and is asked for again.
     */
    private static function decimal(string $value): string
    {
        return match (1) {
            preg_match('/^\d{1,3}(?:\.\d{3})+,\d{1,6}$/', $value) => strtr($value, ['.' => '', ',' => '.']),
            preg_match('/^\d{1,3}(?:,\d{3})+\.\d{1,6}$/', $value) => str_replace(',', '', $value),
            preg_match('/^\d{1,9},\d{1,2}$/', $value) => str_replace(',', '.', $value),
            default => $value,
        };
    }

    public function currency(string $key): string
    {
        $value = $this->text($key);
        if (preg_match('/^[A-Z]{3}$/', $value) !== 1) {
            $this->fail('must be a currency code of three capital letters (ISO 4217), such as "GBP".', $key);
        }

        return $value;
    }

    public function day(string $key): string
    {
        return $this->optionalDay($key) ?? $this->fail('is missing.', $key);
    }

    public function optionalDay(string $key): ?string
    {
        $value = $this->optionalText($key);
        if ($value === null) {
            return null;
        }
        $date = DateTimeImmutable::createFromFormat('!Y-m-d', $value);
        if ($date === false || $date->format('Y-m-d') !== $value) {
            $this->fail('must be a day written YYYY-MM-DD.', $key);
        }

        return $value;
    }

    /**
     * @param  list<string>  $choices
     */
    public function oneOf(string $key, array $choices): string
    {
        return $this->optionalOneOf($key, $choices) ??
            $this->fail('is missing; it is one of '.implode(', ', $choices).'.', $key);
    }

    /**
     * @param  list<string>  $choices
     */
    public function optionalOneOf(string $key, array $choices): ?string
    {
        $value = $this->optionalText($key);
        if ($value !== null && ! in_array($value, $choices, true)) {
            $this->fail(sprintf('"%s" is not one of %s.', $value, implode(', ', $choices)), $key);
        }

        return $value;
    }

    /**
     * @template T of BackedEnum
     *
     * @param  class-string<T>  $enum
     * @return T|null
     */
    public function optionalEnum(string $key, string $enum): ?BackedEnum
    {
        $value = $this->optionalText($key);

        return $value === null
            ? null
            : $enum::tryFrom($value) ??
                    $this->fail(
                        sprintf('"%s" is not one of %s.', $value, implode(', ', array_column($enum::cases(), 'value'))),
                        $key,
                    );
    }

    /**
     * @template T of BackedEnum
     *
     * @param  class-string<T>  $enum
     * @return T
     *
     * @throws CannotReadBuildFile
     */
    public function enum(string $key, string $enum): BackedEnum
    {
        return $this->optionalEnum($key, $enum) ??
            $this->fail('is missing; it is one of '.implode(', ', array_column($enum::cases(), 'value')).'.', $key);
    }

    /**
     * Refuses members nothing has read: a misspelt key must not be lost in silence.
     *
     * @throws CannotReadBuildFile
     */
    public function close(): void
    {
        foreach (array_keys($this->object()) as $key) {
            if (! isset($this->seen[$key]) && ! str_starts_with((string) $key, '_')) {
                $this->fail('is not known here.', (string) $key);
            }
        }
    }

    /**
     * @return array<int|string, mixed>
     */
    private function object(): array
    {
        if (! is_array($this->value) || ($this->value !== [] && array_is_list($this->value))) {
            $this->fail('must be an object with named members.');
        }

        return $this->value;
    }

    private static function holdsControls(string $text): bool
    {
        return preg_match(self::CONTROLS, $text) === 1;
    }

    /** A member's value, which now counts as read. */
    private function take(string $key): mixed
    {
        $this->seen[$key] = true;

        return $this->object()[$key] ?? null;
    }

    private function pointer(): string
    {
        return $this->parent === null ? $this->base : $this->parent->pointer().'/'.self::escaped($this->base);
    }

    private static function escaped(string $key): string
    {
        return strtr($key, ['~' => '~0', '/' => '~1']);
    }
}
