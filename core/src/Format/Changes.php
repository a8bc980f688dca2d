<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

/**
 * Changes of a build file's data, in the shape docs/api/openapi.json gives them.
 *
 * @phpstan-type Change array{section: string, ref?: string, set?: list<array{path: list<string|int>, to: mixed}>,
 *     create?: array<string, mixed>}
 */
final class Changes
{
    /**
     * @param  array<string, mixed>  $data  the build in canonical form
     * @param  list<Change>  $changes
     * @return array<string, mixed> the data with the changes made to it; not read yet
     */
    public static function made(array $data, array $changes): array
    {
        foreach ($changes as $change) {
            /** @var list<array<string, mixed>> $entries */
            $entries = $data[$change['section']] ?? [];
            if (isset($change['create'])) {
                $entries[] = $change['create'];
            }
            foreach ($entries as $i => $entry) {
                foreach ($entry['ref'] === ($change['ref'] ?? null) ? $change['set'] ?? [] : [] as $set) {
                    /** @var array<string, mixed> $changed */
                    $changed = self::put($entries[$i], $set['path'], $set['to']);
                    $entries[$i] = $changed;
                }
            }
            $data[$change['section']] = $entries;
        }

        return $data;
    }

    /**
     * The changes of several remedies as one: what two of them would make alike is made once.
     *
     * @param  list<list<Change>>  $sets
     * @return list<Change>
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
     * @param  array<mixed>  $entry
     * @param  list<string|int>  $path
     * @return array<mixed>
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
        if (is_int($key)) {
            ksort($entry);
        }

        return $entry;
    }
}
