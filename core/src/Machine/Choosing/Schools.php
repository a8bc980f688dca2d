<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

use Magpie\Core\Reference\Tables;

/** The questions on which good practice is divided, from reference/schools.php. */
final class Schools
{
    /**
     * @return array<string, array{question: string, sides: array<string, string>, decides: string}>
     */
    public static function all(): array
    {
        /** @var array<string, array{question: string, sides: array<string, string>, decides: string}> $schools */
        $schools = Tables::named('schools');

        return $schools;
    }

    /**
     * @return array{question: string, sides: array<string, string>, decides: string}|null
     */
    public static function find(string $key): ?array
    {
        return self::all()[$key] ?? null;
    }
}
