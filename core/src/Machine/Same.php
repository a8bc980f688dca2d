<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** Whether two values hold the same, to the kind of each: nothing said is no "no", and no nought. */
final class Same
{
    public static function values(mixed $one, mixed $other): bool
    {
        if ($one === $other) {
            return true;
        }
        if (is_object($one) && is_object($other)) {
            return $one::class === $other::class && self::arrays((array) $one, (array) $other);
        }

        return is_array($one) && is_array($other) && self::arrays($one, $other);
    }

    /**
     * In any order of their keys.
     *
     * @param  array<mixed>  $one
     * @param  array<mixed>  $other
     */
    private static function arrays(array $one, array $other): bool
    {
        if (count($one) !== count($other)) {
            return false;
        }
        foreach ($one as $key => $value) {
            if (! array_key_exists($key, $other) || ! self::values($value, $other[$key])) {
                return false;
            }
        }

        return true;
    }
}
