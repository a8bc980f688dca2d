<?php

declare(strict_types=1);

namespace Magpie\Core\Library;

use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Units;

/**
 * What somebody looking for a part typed: words it must carry and figures its sheet must hold, in any order, as in
 * "motor, 57 mm, holding torque > 1.5 N m". What reads as no figure stays words.
 */
final readonly class Wanted
{
    private const ABOVE = ['>', '>=', '≥', 'over', 'above', 'more than', 'at least', 'from'];

    private const BELOW = ['<', '<=', '≤', 'under', 'below', 'less than', 'at most', 'up to'];

    /**
     * @param  list<string>  $words  in small letters
     * @param  list<WantedFigure>  $figures
     */
    private function __construct(public array $words, public array $figures)
    {
    }

    /**
     * @param  array<Family>  $families  whose lines may be named before a figure
     */
    public static function read(string $typed, array $families): self
    {
        $words = [];
        $figures = [];
        foreach (preg_split('/;|,(?!\d)/u', $typed) ?: [] as $clause) {
            [$left, $found] = self::clause($clause, $families);
            $figures = [...$figures, ...$found];
            $words = [
                ...$words,
                ...preg_split('/[\s\x{a0}]+/u', mb_strtolower($left), -1, PREG_SPLIT_NO_EMPTY) ?: [],
            ];
        }

        return new self(array_values(array_unique($words)), $figures);
    }

    /**
     * @param  array<Family>  $families
     * @return array{string, list<WantedFigure>} the words that are left, and the figures
     */
    private static function clause(string $clause, array $families): array
    {
        $figures = [];
        $left = '';
        while (preg_match(self::pattern(), $clause, $m, PREG_OFFSET_CAPTURE | PREG_UNMATCHED_AS_NULL) === 1) {
            $before = substr($clause, 0, (int) $m[0][1]);
            $figure = self::figure(array_map(static fn (array $part): string => (string) $part[0], $m));
            $named = $figure === null ? null : self::named($before, $figure, $families);
            $left .= match (true) {
                $figure === null => $before.$m[0][0],
                $named !== null => '',
                default => $before,
            };
            if ($figure !== null) {
                $figures[] = $named ?? $figure;
            }
            $left .= ' ';
            $clause = substr($clause, (int) $m[0][1] + strlen((string) $m[0][0]));
        }

        return [$left.$clause, $figures];
    }

    /**
     * @param  array<array-key, string>  $m  as the pattern found it
     */
    private static function figure(array $m): ?WantedFigure
    {
        try {
            $unit = Units::named($m['unit']);
            $first = Quantity::parse("{$m['first']} {$m['unit']}", $unit->dimension);
            $last = $m['last'] === '' ? null : Quantity::parse("{$m['last']} {$m['unit']}", $unit->dimension);
        } catch (CannotReadQuantity) {
            return null;
        }
        $way = mb_strtolower((string) preg_replace('/\s+/u', ' ', trim($m['way'])));

        return match (true) {
            $last !== null && ! $last->isBelow($first) => WantedFigure::between($first, $last),
            in_array($way, self::ABOVE, true) => WantedFigure::above($first),
            in_array($way, self::BELOW, true) => WantedFigure::below($first),
            default => WantedFigure::about($first),
        };
    }

    /**
     * The same figure of one line of the sheets only, where the words before it are its name.
     *
     * @param  array<Family>  $families
     */
    private static function named(string $before, WantedFigure $figure, array $families): ?WantedFigure
    {
        $name = trim(mb_strtolower($before));
        $keys = [];
        foreach ($name === '' ? [] : $families as $family) {
            foreach ($family->sheet() as $field) {
                if (self::isCalled($field, $name, $figure->dimension)) {
                    $keys[$field->key] = true;
                }
            }
        }

        return $keys === [] ? null : $figure->of($name, array_keys($keys));
    }

    private static function isCalled(SpecField $field, string $name, Dimension $dimension): bool
    {
        return $field->dimension === $dimension &&
            in_array($name, [mb_strtolower($field->label), str_replace('_', ' ', $field->key)], true);
    }

    private static function pattern(): string
    {
        static $pattern = null;
        if ($pattern === null) {
            $ways = self::anyOf([...self::ABOVE, ...self::BELOW]);
            $number = '\d+(?:[.,]\d+)?(?:\/\d+)?';
            // Between the units of a product there may be a point, a hyphen or nothing.
            $units = str_replace(' ', '[ ·⋅*-]?', self::anyOf(Units::spellings()));
            $pattern =
                "/(?<![\\p{L}\\d.,])(?:(?<way>{$ways})\\s*)?(?<first>{$number})".
                "(?:\\s*(?:to|\\.\\.|–|-)\\s*(?<last>{$number}))?[ \\x{a0}]?(?<unit>{$units})(?![\\p{L}\\d])/iu";
        }

        /** @var string $pattern */
        return $pattern;
    }

    /**
     * The longest that can be read decides, so that "1.5 N m" is a torque and no force.
     *
     * @param  list<string>  $words
     */
    private static function anyOf(array $words): string
    {
        usort($words, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));

        return implode('|', array_map(static fn (string $word): string => preg_quote($word, '/'), $words));
    }
}
