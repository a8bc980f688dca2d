<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

/** One line of a program, in its words. */
final readonly class Block
{
    /** Codes that say something of the machine or the tool, not of a setting: other words on their line may still be a move. */
    private const BESIDE_A_MOVE = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 30, 48, 49, 60, 62, 63, 64, 65, 66, 67, 68];

    public const ENDS = [2, 30];

    private const WORD = '/([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/';

    /** Codes that name axes by their letters alone: to home them, to level, to let motors go. */
    private const BARE_G = [280, 290, 300];

    /** Further, faster or more often than anything is: a word beyond it cannot be read. */
    private const LARGEST = 1e9;

    private const BARE_M = [17, 18, 84];

    /**
     * @param  list<int>  $g  codes in tenths: 382 is G38.2
     * @param  list<int>  $m
     * @param  array<string, float>  $words  by letter
     * @param  string|null  $unread  the line, where not all of it could be read
     * @param  bool  $hasParameters  it works with what is not worked here, and was not read further
     */
    private function __construct(
        public array $g,
        public array $m,
        public array $words,
        public ?string $unread = null,
        public bool $hasParameters = false,
    ) {
    }

    /** Nothing is left of a comment, a message, or a line that is left out. */
    public static function of(string $text): self
    {
        $text = self::bare(strtoupper($text));
        if ($text === '' || $text[0] === '%' || $text[0] === '/' || self::isMessage($text)) {
            return new self([], [], []);
        }
        if (strpbrk($text, '#[]=<>') !== false) {
            return new self([], [], [], hasParameters: true);
        }
        preg_match_all(self::WORD, $text, $found, PREG_SET_ORDER);
        $words = $g = $m = [];
        $read = 0;
        foreach ($found as [$whole, $letter, $number]) {
            // Of a word no machine could mean, nothing beside it is obeyed either.
            if (abs((float) $number) > self::LARGEST) {
                return new self([], [], [], mb_substr($text, 0, 200));
            }
            $read += strlen($whole);
            if ($letter === 'G') {
                $g[] = (int) round(10 * (float) $number);
            } elseif ($letter === 'M') {
                $m[] = (int) $number;
            } else {
                $words[$letter] = (float) $number;
            }
        }
        if ($read === strlen($text) - substr_count($text, ' ') || $read === strlen($text)) {
            return new self($g, $m, $words);
        }
        $left = trim((string) preg_replace(self::WORD, '', $text));
        if ($left !== '' && (array_intersect($g, self::BARE_G) !== [] || array_intersect($m, self::BARE_M) !== [])) {
            preg_match_all('/[A-Z]/', $left, $bare);
            $words += array_fill_keys($bare[0], 0.0);
            $left = trim((string) preg_replace('/[A-Z]\b/', '', $left));
        }

        return new self($g, $m, $words, $left === '' ? null : $text);
    }

    private static function isMessage(string $text): bool
    {
        return str_contains($text, 'M11') && preg_match('/^(N\d+\s*)?M11[78]\b/', $text) === 1;
    }

    /** Without comments and the sum it is checked by; what is quoted is a name, and stands for nothing. */
    private static function bare(string $text): string
    {
        return strpbrk($text, '(;"*') === false
            ? trim($text)
            : trim((string) preg_replace(['/\([^)]*\)|;.*|\(.*$|\*\d+\s*$/', '/"[^"]*"/'], ['', '0'], $text));
    }

    /** Whether its other words belong to a code that sets something: limits, currents, a fan. */
    public function sets(): bool
    {
        return $this->m !== [] && $this->g === [] && array_diff($this->m, self::BESIDE_A_MOVE) !== [];
    }

    /** Whether its S is how fast a tool turns, or how strong it burns: not a pause, a temperature or a fan. */
    public function hasSpeed(): bool
    {
        return isset($this->words['S']) &&
            ! in_array(40, $this->g, true) &&
            array_diff($this->m, self::BESIDE_A_MOVE) === [];
    }

    /**
     * Its M-codes but those that end a program: a tool is changed before it is switched on.
     *
     * @return list<int>
     */
    public function inOrder(): array
    {
        return [...array_intersect($this->m, [6]), ...array_diff($this->m, [6], self::ENDS)];
    }

    /** With these of its words alone. */
    public function only(string ...$letters): self
    {
        return new self([], [], array_intersect_key($this->words, array_fill_keys($letters, true)));
    }

    /** A line that names a height. */
    public static function to(float $z): self
    {
        return new self([], [], ['Z' => $z]);
    }

    public function word(string $letter): ?float
    {
        return $this->words[$letter] ?? null;
    }

    public function has(string ...$letters): bool
    {
        foreach ($letters as $letter) {
            if (isset($this->words[$letter])) {
                return true;
            }
        }

        return false;
    }
}
