<?php

declare(strict_types=1);

namespace App\Accounts;

/** What may be a password here, and how long the texts of an account may be. */
final class Password
{
    public const SHORTEST = 10;

    /** Bytes; the hash takes no more into account, so that a longer one would only seem stronger. */
    public const LONGEST = 72;

    public const LONGEST_NAME = 120;

    public const LONGEST_ADDRESS = 190;

    private const DIGEST_OF_NOBODY = '8hWNi5QyC6ysx9molcu1mu60wbpN0b.76fFbf04MDtnVBR.3dAXTa';

    /** A hash that no password has, at the cost of all that are made: an address that nobody has takes as long. */
    public static function ofNobody(): string
    {
        return sprintf('$2y$%02d$%s', (int) config('hashing.bcrypt.rounds'), self::DIGEST_OF_NOBODY);
    }

    /** Why it cannot be taken; null when it can. */
    public static function refusal(string $password, string $name, string $address): ?string
    {
        $plain = mb_strtolower($password);
        $own = array_filter(
            [mb_strtolower(strtok($address, '@') ?: ''), ...preg_split('/\s+/', mb_strtolower($name)) ?: []],
            static fn (string $w): bool => mb_strlen($w) > 3,
        );
        $rest = str_replace($own, '', $plain);

        return match (true) {
            mb_strlen($password) < self::SHORTEST => 'A password has at least '.self::SHORTEST.' characters.',
            strlen($password) > self::LONGEST => 'A password has at most '.
                self::LONGEST.
                ' bytes; letters with accents take two.',
            count(array_unique(mb_str_split($plain))) < 5 => 'This repeats a few characters; take more different ones.',
            mb_strlen($rest) < 6 => 'This is little more than your name or address; anybody who knows you would try it.',
            isset(self::common()[substr(hash('sha256', $plain), 0, 16)]) => 'This is one of the commonest passwords; it would be tried first.',
            default => null,
        };
    }

    /**
     * @return array<string, true>
     */
    private static function common(): array
    {
        $lines = file(__DIR__.'/common-passwords.txt', FILE_IGNORE_NEW_LINES | FILE_SKIP_EMPTY_LINES) ?: [];

        return array_fill_keys(array_filter($lines, static fn (string $l): bool => $l[0] !== '#'), true);
    }
}
