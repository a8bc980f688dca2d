<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

/** The questions on which good practice is divided, from reference/schools.php. */
final class Schools
{
    /**
     * @return array<string, array{question: string, sides: array<string, string>, decides: string}>
     */
    public static function all(): array
    {
        static $all = null;

        return $all ??= require dirname(__DIR__, 2).'/reference/schools.php';
    }

    /**
     * @return array{question: string, sides: array<string, string>, decides: string}|null
     */
    public static function find(string $key): ?array
    {
        return self::all()[$key] ?? null;
    }
}
