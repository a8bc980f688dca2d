<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\Family;

/**
 * The family a line of a parts list belongs to, from what its builder wrote.
 *
 * What a part is stands last in its name, before what it is for: a "stepper motor driver for the X axis" is a driver. So
 * the last word that names a kind before the first "for", "with", comma or bracket decides.
 */
final readonly class FamilyGuess
{
    private const ASIDE = '/\s(?:for|with|without|in|of|on|to|from|incl|including)\s|[,;(\/]|\s[-–—]\s/u';

    /** Words on which the names of many kinds end: after another kind they settle nothing. */
    private const VAGUE = [
        'board',
        'controller',
        'driver',
        'housing',
        'panel',
        'plate',
        'plug',
        'sheet',
        'switch',
        'terminal',
    ];

    /**
     * @param  bool  $sure  whether nothing in its name speaks for another kind
     */
    private function __construct(public Family $family, public bool $sure)
    {
    }

    /** Null where nothing in it names a kind of part. */
    public static function of(string ...$texts): ?self
    {
        $catalogue = Catalogue::standard();
        $named = $catalogue->find(str_replace([' ', '-'], '_', trim(mb_strtolower($texts[0] ?? ''))));
        if ($named !== null) {
            return new self($named, true);
        }
        foreach ($texts as $text) {
            $text = trim(mb_strtolower($text));
            $head = trim(preg_split(self::ASIDE, $text, 2)[0] ?? '');
            $found = self::matches($head);
            // What stands aside only tells what it is for: a kind found there is a guess.
            $any = $found === [] ? self::matches($text) : $found;
            if ($any !== []) {
                return new self(end($any)[1], $found !== [] && self::isPlain($found, $head));
            }
        }

        return null;
    }

    /**
     * @param  non-empty-list<array{string, Family}>  $found
     */
    private static function isPlain(array $found, string $head): bool
    {
        [$word, $family] = end($found);
        foreach ($found as [, $other]) {
            if ($other !== $family) {
                return ! in_array($word, self::VAGUE, true) && preg_match("/{$word}(?:s|es)?$/u", $head) === 1;
            }
        }

        return true;
    }

    /**
     * @return list<array{string, Family}> in the order they stand there; of words that overlap the longer
     */
    private static function matches(string $text): array
    {
        [$words, $pattern] = self::words();
        preg_match_all($pattern, $text, $m);

        return array_map(static fn (string $word): array => [$word, $words[$word]], $m[1]);
    }

    /**
     * Laid out once: a list asks for each of its lines.
     *
     * @return array{array<string, Family>, string} by word, and what finds them, the longest first
     */
    private static function words(): array
    {
        static $found = null;
        if ($found === null) {
            $words = [];
            foreach (Catalogue::standard()->all() as $family) {
                foreach ($family->words() as $word) {
                    $words[$word] = $family;
                }
            }
            uksort($words, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));
            $any = implode('|', array_map(static fn (string $w): string => preg_quote($w, '/'), array_keys($words)));
            $found = [$words, "/(?<![\\p{L}])({$any})(?:s|es)?(?![\\p{L}])/u"];
        }

        /** @var array{array<string, Family>, string} $found */
        return $found;
    }
}
