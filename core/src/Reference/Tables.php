<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

/** The tables in core/reference, each of which names its source; read once. */
final class Tables
{
    /** @var array<string, mixed> */
    private static array $read = [];

    /**
     * @param  string  $name  as the file is called, without its ending
     * @return mixed in the shape the file's own comment gives
     */
    public static function named(string $name): mixed
    {
        return self::$read[$name] ??= require dirname(__DIR__, 2)."/reference/{$name}.php";
    }
}
