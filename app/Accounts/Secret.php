<?php

declare(strict_types=1);

namespace App\Accounts;

/** Random words that open something: told once, kept as their hash. */
final class Secret
{
    /** 240 bits in letters an address may hold. */
    public static function fresh(): string
    {
        return rtrim(strtr(base64_encode(random_bytes(30)), '+/', '-_'), '=');
    }

    public static function hash(string $secret): string
    {
        return hash('sha256', $secret);
    }
}
