<?php

declare(strict_types=1);

namespace App\Builds;

/** A place inside an entry: keys and list positions from the outside in. */
final class Path
{
    /**
     * @param  string  $pointer  a JSON pointer (RFC 6901)
     * @param  int  $from  how many of its steps lead to the entry itself
     * @return list<string|int> the rest of it, within the entry
     */
    public static function ofPointer(string $pointer, int $from): array
    {
        $step = static fn (string $s): string|int => ctype_digit($s) ? (int) $s : strtr($s, ['~1' => '/', '~0' => '~']);

        return array_map($step, array_slice(explode('/', $pointer), $from + 1));
    }

    /**
     * @param  array<int|string, mixed>  $entry
     * @param  list<string|int>  $path
     */
    public static function get(array $entry, array $path): mixed
    {
        $value = $entry;
        foreach ($path as $key) {
            if (! is_array($value) || ! array_key_exists($key, $value)) {
                return null;
            }
            $value = $value[$key];
        }

        return $value;
    }

    /**
     * @param  array<int|string, mixed>  $entry
     * @param  list<string|int>  $path
     * @param  mixed  $to  null takes the place away
     * @return array<int|string, mixed>
     */
    public static function set(array $entry, array $path, mixed $to): array
    {
        $key = array_shift($path);
        if ($key === null) {
            return is_array($to) ? $to : $entry;
        }
        if ($path !== []) {
            $inner = $entry[$key] ?? [];
            // The two ends of a lead may be spoken of before either is described.
            for ($i = 0; is_int($key) && $i < $key; $i++) {
                $entry[$i] ??= [];
            }
            $entry[$key] = self::set(is_array($inner) ? $inner : [], $path, $to);
        } elseif ($to !== null) {
            $entry[$key] = $to;
        } else {
            $list = array_is_list($entry);
            unset($entry[$key]);
            $entry = $list ? array_values($entry) : $entry;
        }

        return $entry;
    }
}
