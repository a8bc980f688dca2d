<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

/** Changes of a build file's data, in the shape docs/api/openapi.json gives them. */
final class Changes
{
    /**
     * @param  array<string, mixed>  $data  the build in canonical form
     * @param  list<array<string, mixed>>  $changes
     * @return array<string, mixed> the data with the changes made to it; not read yet
     */
    public static function made(array $data, array $changes): array
    {
        foreach ($changes as $change) {
            $section = $change['section'];
            if (isset($change['create'])) {
                $data[$section][] = $change['create'];

                continue;
            }
            foreach ($data[$section] ?? [] as $i => $entry) {
                if ($entry['ref'] === $change['ref']) {
                    foreach ($change['set'] as $set) {
                        $data[$section][$i] = self::put($data[$section][$i], $set['path'], $set['to']);
                    }
                }
            }
        }

        return $data;
    }

    /**
     * The changes of several remedies as one: what two of them would make alike is made once.
     *
     * @param  list<list<array<string, mixed>>>  $sets
     * @return list<array<string, mixed>>
     */
    public static function merged(array $sets): array
    {
        $merged = [];
        foreach (array_merge(...$sets) as $change) {
            if (! in_array($change, $merged, true)) {
                $merged[] = $change;
            }
        }

        return $merged;
    }

    /**
     * @param  array<int|string, mixed>  $entry
     * @param  list<string|int>  $path
     * @return array<int|string, mixed>
     */
    private static function put(array $entry, array $path, mixed $to): array
    {
        $key = array_shift($path);
        if ($key === null) {
            return $entry;
        }
        $entry[$key] = $path === [] ? $to : self::put((array) ($entry[$key] ?? []), $path, $to);
        // A list keeps its places: an end that is not described yet is an empty one.
        for ($i = 0; is_int($key) && $i < $key; $i++) {
            $entry[$i] ??= [];
        }
        is_int($key) && ksort($entry);

        return $entry;
    }
}
