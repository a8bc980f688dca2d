<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

/**
 * A build file for somebody outside: without the names of people and, unless it is granted, without what anything costs. It
 * reads as the same machine; what is required by the format and withheld stands as "someone" or 0.
 */
final readonly class Withheld
{
    public const SOMEONE = 'someone';

    /** Where people are named, by section; `*` is each of a list. */
    private const PEOPLE = [
        'brief' => ['helper'],
        'accepted' => ['*.who'],
        'alignments' => ['*.by'],
        'attempts' => ['*.by'],
        'decisions' => ['*.who', '*.opinions.*.who'],
        'questions' => ['*.of'],
        'readings' => ['*.by'],
        'rounds' => ['*.by'],
        'rungs' => ['*.by'],
        'steps' => ['*.timings.*.by'],
        'tests' => ['*.by'],
    ];

    /** What power costs where it stands is no secret of the builder's, and stays. Sections that hold nothing but prices go. */
    private const PRICES = ['offers', 'rates'];

    private const MONEY = [
        'build' => ['budget', 'contingency'],
        'brief' => ['hour'],
        'needs' => ['*.worth'],
        'suppliers' => ['*.shipping', '*.duty', '*.duty_free', '*.tax', '*.tax_free', '*.fee', '*.least_order'],
        'purchases' => ['*.agreed', '*.fetched', '*.rate'],
        'faults' => ['*.cost'],
        'routes' => ['*.resale', '*.lines.*.price'],
        'decisions' => ['*.facts.Price'],
    ];

    /** What is paid has to be there. */
    private const NOTHING = ['purchases' => ['*.paid']];

    private const CURRENCIES = '[£€$]|GBP|EUR|USD|CHF|SEK|NOK|DKK|PLN|CZK|AUD|CAD|NZD|JPY|CNY|INR|BRL';

    /** An amount with its currency, before or after. */
    private const AMOUNT = '/(?<!\w)(?:'.self::CURRENCIES.')\s?\d[\d.,]*(?<![.,])|\b\d[\d.,]*\s?(?:'.self::CURRENCIES.')(?!\w)/u';

    /**
     * @param  array<string, mixed>  $data  in canonical form
     * @param  bool  $money  whether prices stay
     * @param  list<string>  $names  of more people who may stand in a text
     * @return array<string, mixed> in canonical form
     */
    public static function from(array $data, bool $money, array $names = []): array
    {
        foreach (self::PEOPLE as $section => $paths) {
            foreach ($paths as $path) {
                self::at($data, [$section, ...explode('.', $path)], static function (mixed $name) use (&$names): string {
                    if (is_string($name)) {
                        $names[] = $name;
                    }

                    return self::SOMEONE;
                });
            }
        }
        if (! $money) {
            $data = array_diff_key($data, array_flip(self::PRICES));
            foreach (self::MONEY as $section => $paths) {
                foreach ($paths as $path) {
                    self::at($data, [$section, ...explode('.', $path)], null);
                }
            }
            foreach (self::NOTHING as $section => $paths) {
                foreach ($paths as $path) {
                    self::at($data, [$section, ...explode('.', $path)], static fn (): string => '0.00');
                }
            }
        }

        $pattern = self::pattern($names);

        return array_map(static fn (mixed $section): mixed => self::texts($section, $pattern, $money), $data);
    }

    /**
     * A text that goes out beside the file, likewise.
     *
     * @param  list<string>  $names
     */
    public static function text(string $text, bool $money, array $names): string
    {
        return self::cleaned($text, self::pattern($names), $money);
    }

    /**
     * @param  list<string>  $names
     */
    private static function pattern(array $names): ?string
    {
        $names = array_unique(array_filter(
            array_map(trim(...), $names),
            static fn (string $n): bool => mb_strlen($n) > 2 && $n !== self::SOMEONE,
        ));
        // The longest first: "Tam Corrie" before "Tam".
        usort($names, static fn (string $a, string $b): int => mb_strlen($b) <=> mb_strlen($a));

        return $names === []
            ? null
            : '/(?<![\p{L}\p{N}])(?:'.
                    implode('|', array_map(static fn (string $n): string => preg_quote($n, '/'), $names)).
                    ')(?![\p{L}\p{N}])/u';
    }

    private static function texts(mixed $data, ?string $names, bool $money): mixed
    {
        if (is_array($data)) {
            foreach ($data as $key => $value) {
                $data[$key] = $key === 'ref' ? $value : self::texts($value, $names, $money);
            }
        }

        return is_string($data) ? self::cleaned($data, $names, $money) : $data;
    }

    private static function cleaned(string $text, ?string $names, bool $money): string
    {
        $text = $names === null ? $text : preg_replace($names, self::SOMEONE, $text) ?? $text;

        return $money ? $text : preg_replace(self::AMOUNT, '…', $text) ?? $text;
    }

    /**
     * @param  array<mixed>  $data
     * @param  list<string>  $path
     * @param  (callable(mixed): string)|null  $becomes  null takes it out
     */
    private static function at(array &$data, array $path, ?callable $becomes): void
    {
        $key = (string) array_shift($path);
        foreach ($key === '*' ? array_keys($data) : [$key] as $one) {
            if (! array_key_exists($one, $data)) {
                continue;
            }
            if ($path !== []) {
                if (is_array($data[$one])) {
                    self::at($data[$one], $path, $becomes);
                }
            } elseif ($becomes === null) {
                unset($data[$one]);
            } else {
                $data[$one] = $becomes($data[$one]);
            }
        }
    }
}
