<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Random\Randomizer;

/** One edit of a build's data, of any kind a builder might make. */
final class RandomEdit
{
    /** Sections an edit is drawn from, those that are edited most more than once. */
    public const SECTIONS = [
        'parts',
        'parts',
        'parts',
        'parts',
        'leads',
        'leads',
        'needs',
        'needs',
        'axes',
        'mates',
        'zones',
        'site',
        'places',
        'scenarios',
        'settings',
        'offers',
        'limits',
        'brief',
        'faults',
        'workpieces',
        'clearances',
        'readings',
        'alignments',
        'prints',
        'purchases',
    ];

    /**
     * @param  array<string, mixed>  $data
     * @param  non-empty-list<string>  $sections  to draw from
     * @return array{string, array<string, mixed>} what it is, and the data after it
     */
    public static function of(array $data, Randomizer $dice, array $sections = self::SECTIONS): array
    {
        $section = self::pick($sections, $dice);
        if (in_array($section, ['site', 'brief'], true)) {
            return self::ofMember($data, $section, $dice);
        }
        if (($data[$section] ?? []) === []) {
            return ["nothing in {$section}", $data];
        }
        $i = $dice->getInt(0, count($data[$section]) - 1);
        $ref = $data[$section][$i]['ref'] ?? $i;
        $roll = $dice->getInt(0, 11);
        if ($roll === 0) {
            array_splice($data[$section], $i, 1);

            return ["{$section}/{$ref} out", $data];
        }
        if ($roll === 1) {
            $data[$section][] = ['ref' => "{$ref}-2"] + $data[$section][$i];

            return ["{$section}/{$ref} again", $data];
        }
        if ($section === 'needs' && $roll < 6) {
            $candidates = $data[$section][$i]['candidates'] ?? [];
            $data[$section][$i]['choice'] = $candidates === [] || $roll === 2 ? null : self::pick($candidates, $dice);
            $data[$section][$i] = array_filter($data[$section][$i], static fn ($v): bool => $v !== null);

            return ["another choice for {$ref}", $data];
        }
        $before = $data[$section][$i];
        $data[$section][$i] = self::nudged($before, $dice);

        return ["{$section}/{$ref}: ".json_encode(self::difference($before, $data[$section][$i])), $data];
    }

    /**
     * @param  array<string, mixed>  $data
     * @return array{string, array<string, mixed>}
     */
    private static function ofMember(array $data, string $member, Randomizer $dice): array
    {
        $before = $data[$member] ?? [];
        $data[$member] = self::nudged($before, $dice);

        return ["{$member}: ".json_encode(self::difference($before, $data[$member])), $data];
    }

    /**
     * One value somewhere inside, larger, smaller, of other evidence, gone or turned round.
     *
     * @param  array<int|string, mixed>  $entry
     * @return array<int|string, mixed>
     */
    private static function nudged(array $entry, Randomizer $dice): array
    {
        $keys = array_values(array_diff(array_keys($entry), ['ref', 'family', 'library', 'between']));
        if ($keys === []) {
            return $entry;
        }
        $key = self::pick($keys, $dice);
        $value = $entry[$key];
        if (is_array($value)) {
            $entry[$key] = self::nudged($value, $dice);

            return $entry;
        }
        if ($dice->getInt(0, 6) === 0) {
            unset($entry[$key]);

            return array_is_list($entry) || is_string($key) ? $entry : array_values($entry);
        }
        $entry[$key] = match (true) {
            $key === 'evidence' => self::pick(['measured', 'datasheet', 'manual', 'listing', 'assumed'], $dice),
            is_bool($value) => ! $value,
            is_int($value) => max(0, $value + $dice->getInt(-1, 2)),
            is_string($value) && preg_match('/^(-?[\d.]+)(.*)$/', $value, $m) === 1 => round(
                (float) $m[1] * self::pick([0.1, 0.5, 0.9, 1.1, 2, 10], $dice),
                6,
            ).$m[2],
            in_array($key, ['role', 'name', 'notes', 'source', 'reason'], true) => "{$value} x",
            default => $value,
        };

        return $entry;
    }

    /**
     * @param  array<int|string, mixed>  $before
     * @param  array<int|string, mixed>  $after
     * @return array<int|string, mixed>
     */
    private static function difference(array $before, array $after): array
    {
        $difference = [];
        foreach ($after + $before as $key => $any) {
            if (($before[$key] ?? null) !== ($after[$key] ?? null)) {
                $difference[$key] =
                    is_array($after[$key] ?? null) && is_array($before[$key] ?? null)
                        ? self::difference($before[$key], $after[$key])
                        : $after[$key] ?? null;
            }
        }

        return $difference;
    }

    /**
     * @template T
     *
     * @param  array<int, T>  $from
     * @return T
     */
    private static function pick(array $from, Randomizer $dice): mixed
    {
        $from = array_values($from);

        return $from[$dice->getInt(0, count($from) - 1)];
    }
}
