<?php

declare(strict_types=1);

namespace Magpie\Core\Book;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Machine\Build;

/**
 * What of a finished build the next of its kind begins with: parts, needs, wiring, joints, axes, prices, decisions, documents and the
 * steps, open again. What belongs to the one machine stays with it: purchases, prints, faults, readings, settings read back, hours.
 */
final class Template
{
    private const ITS_OWN = [
        'purchases',
        'prints',
        'faults',
        'questions',
        'revisions',
        'accepted',
        'readings',
        'rungs',
        'attempts',
        'alignments',
        'jobs',
        'rounds',
        'tests',
    ];

    public static function of(Build $build, string $name): Build
    {
        /** @var array<string, mixed> $data */
        $data = array_diff_key(BuildFile::data($build), array_flip(self::ITS_OWN));
        $data['build'] = ['name' => $name, 'stage' => 'planned'] + self::object($data['build'] ?? []);
        foreach (['steps', 'leads', 'needs', 'settings', 'bags', 'documents', 'places'] as $section) {
            $entries = is_array($data[$section] ?? null) ? $data[$section] : [];
            $data[$section] = array_map(
                static fn (mixed $entry): array => self::afresh($section, self::object($entry)),
                array_values($entries),
            );
        }

        return BuildFile::build(array_filter($data, static fn (mixed $v): bool => $v !== []), kept: true);
    }

    /**
     * @return array<string, mixed>
     */
    private static function object(mixed $value): array
    {
        $object = [];
        foreach (is_array($value) ? $value : [] as $key => $one) {
            $object[(string) $key] = $one;
        }

        return $object;
    }

    /**
     * @param  array<string, mixed>  $entry
     * @return array<string, mixed>
     */
    private static function afresh(string $section, array $entry): array
    {
        $drop = match ($section) {
            'steps' => ['timings', 'waived', 'guesses'],
            'leads' => ['made'],
            'needs' => ['stage', 'owned'],
            'settings' => ['value', 'made', 'done'],
            'documents' => ['read'],
            // What was measured there is not measured here; what was assumed stays so.
            'places' => ($entry['evidence'] ?? null) === 'measured' ? ['evidence'] : [],
            default => [],
        };
        $entry = array_diff_key($entry, array_flip($drop));
        if ($section === 'steps') {
            $entry['state'] = 'open';
            if (isset($entry['check'])) {
                $entry['check'] = array_diff_key(self::object($entry['check']), ['measured' => 1]);
            }
        }
        foreach (['leads' => 'ends', 'bags' => 'holds'] as $of => $key) {
            if ($section === $of && is_array($entry[$key] ?? null)) {
                $entry[$key] = array_map(
                    static fn (mixed $one): array => array_diff_key(self::object($one), [
                        'made' => 1,
                        'pulled' => 1,
                        'found' => 1,
                        'left' => 1,
                    ]),
                    array_values($entry[$key]),
                );
            }
        }

        return $entry;
    }
}
