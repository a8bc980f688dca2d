<?php

declare(strict_types=1);

namespace App\Http;

/** The address of a request as logs may have it: what opens something stands there as its hash. */
final class LoggedPath
{
    /** Addresses that end in a secret. */
    private const SECRET = '#^((?:api/)?(?:invited|shared|reset)/)(.+)$#';

    /** @param  string  $path  without a slash before it, and without a query */
    public static function of(string $path): string
    {
        return (string) preg_replace_callback(
            self::SECRET,
            static fn (array $m): string => $m[1].'#'.substr(hash('sha256', $m[2]), 0, 16),
            $path,
        );
    }
}
