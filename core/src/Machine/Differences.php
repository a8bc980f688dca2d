<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/**
 * What an edit has changed between two builds: the cells, as Reads names them, and the entries they stand in. Where the
 * builds do not hang together in the same way, it says so: then nothing can be taken over.
 */
final readonly class Differences
{
    /** Collections read as a whole; every other is looked at entry by entry. */
    private const WHOLE = [
        'suppliers',
        'offers',
        'rates',
        'purchases',
        'steps',
        'faults',
        'limits',
        'mates',
        'workpieces',
        'axes',
        'routes',
        'decisions',
        'revisions',
        'zones',
        'clearances',
        'settings',
        'accepted',
        'printers',
        'prints',
        'documents',
        'bags',
        'questions',
        'readings',
        'rungs',
        'attempts',
        'alignments',
        'jobs',
        'rounds',
        'tests',
        'places',
    ];

    /** The cell that has changed when something is joined otherwise than before. */
    public const REWIRED = 'rewired';

    /**
     * @param  array<string, true>  $cells  what reads one of them has to read again
     * @param  array<string, true>  $entries  "parts/M-57" of which anything has changed, if only a spec
     */
    private function __construct(public array $cells, public array $entries)
    {
    }

    /** Null when so much is otherwise that nothing can be taken over. */
    public static function between(Build $before, Build $after): ?self
    {
        if (! self::alike($before->scenarios, $after->scenarios)) {
            return null;
        }
        $needs = self::needs($before, $after);
        $parts = self::parts($before, $after);
        $stands = self::stands($before, $after);
        if ($needs === null || $parts === null || $stands === null) {
            return null;
        }
        $leads = self::leads($before->leads, $after->leads);
        $cells = [Reads::ALWAYS => true] + $needs + $parts + $stands + $leads;
        $entries = [];
        foreach ($cells as $cell => $_) {
            // "parts/M-57/rated_current" stands in "parts/M-57".
            $words = explode('/', (string) $cell);
            if (isset($words[1])) {
                $entries["{$words[0]}/{$words[1]}"] = true;
            }
            $entries[$words[0]] = true;
        }
        foreach (self::WHOLE as $section) {
            if (! self::alike($before->{$section}, $after->{$section})) {
                $cells[$section] = true;
            }
        }
        foreach (['plan', 'site', 'brief'] as $one) {
            if (! Same::values($before->{$one}, $after->{$one})) {
                $cells[$one] = true;
            }
        }

        return new self($cells, $entries);
    }

    /**
     * Entries are compared by identity first: an edit leaves most of them the very same.
     *
     * @param  array<string, object>  $before
     * @param  array<string, object>  $after
     */
    private static function alike(array $before, array $after): bool
    {
        return $before === $after || (array_keys($before) === array_keys($after) && Same::values($before, $after));
    }

    /**
     * @return array<string, true> parts that fill a need
     */
    private static function chosen(Build $build): array
    {
        $chosen = [];
        foreach ($build->needs as $need) {
            $chosen[$need->choice ?? ''] = true;
        }

        return $chosen;
    }

    /**
     * @return array<string, true>|null cells
     */
    private static function needs(Build $before, Build $after): ?array
    {
        [$then, $now] = [$before->needs, $after->needs];
        if ($then === $now) {
            return [];
        }
        // A need may come to those that are there; where one goes or is put among them, all is laid out afresh.
        if (array_slice(array_keys($now), 0, count($then)) !== array_keys($then)) {
            return null;
        }
        $cells = [];
        foreach ($now as $ref => $need) {
            $was = $then[$ref] ?? null;
            if (Same::values($need, $was)) {
                continue;
            }
            $one = $before->parts[$was->choice ?? ''] ?? null;
            $other = $after->parts[$need->choice ?? ''] ?? null;
            if ($was !== null && ! self::carryAlike($one, $other)) {
                return null;
            }
            if ($was === null || $one?->family !== $other?->family) {
                foreach (array_filter([$one, $other]) as $part) {
                    $cells["fitted/{$part->family->key()}"] = true;
                    foreach ($part->family->abilities() as $ability) {
                        $cells["able/{$ability->value}"] = true;
                    }
                }
                $cells['fitted'] = true;
            }
            if ($was === null || $was->seat !== $need->seat) {
                $cells[self::REWIRED] = true;
            }
            if ($was?->role !== $need->role) {
                $cells["roles/{$ref}"] = true;
            }
            $cells["needs/{$ref}"] = $cells['needs'] = true;
        }

        return $cells;
    }

    /**
     * What was measured of a part in one of the places it fills.
     *
     * @return array<string, true>|null cells
     */
    private static function stands(Build $before, Build $after): ?array
    {
        $cells = [];
        foreach ($before->stands + $after->stands as $need => $part) {
            $was = $before->stands[$need] ?? ($before->parts[$part->ref] ?? null);
            $now = $after->stands[$need] ?? ($after->parts[$part->ref] ?? null);
            if ($was === $now || $was === null || $now === null) {
                continue;
            }
            if (! self::carryAlike($was, $now)) {
                return null;
            }
            $cells += self::ofPart($was, $now);
        }

        return $cells;
    }

    /**
     * @param  array<string, Lead>  $then
     * @param  array<string, Lead>  $now
     * @return array<string, true> cells
     */
    private static function leads(array $then, array $now): array
    {
        if ($then === $now) {
            return [];
        }
        $cells = [];
        foreach ($now + $then as $ref => $_) {
            $lead = $now[$ref] ?? null;
            $was = $then[$ref] ?? null;
            if (Same::values($lead, $was)) {
                continue;
            }
            if (! Same::values($lead?->from, $was?->from) || ! Same::values($lead?->to, $was?->to)) {
                $cells[self::REWIRED] = $cells['runs'] = true;
                foreach (array_filter([$lead, $was]) as $one) {
                    $cells["ends/{$one->from->text()}"] = $cells["ends/{$one->to->text()}"] = true;
                }
            }
            $cells["leads/{$ref}"] = $cells['leads'] = true;
        }
        if (array_keys($then) !== array_keys($now)) {
            $cells['leads'] = $cells['runs'] = true;
        }

        return $cells;
    }

    /**
     * @return array<string, true>|null cells
     */
    private static function parts(Build $before, Build $after): ?array
    {
        [$then, $now] = [$before->parts, $after->parts];
        $cells = [];
        $chosen = null;
        foreach (array_diff_key($then, $now) as $ref => $_) {
            $cells["parts/{$ref}"] = $cells['parts'] = true;
        }
        foreach ($now as $ref => $part) {
            $was = $then[$ref] ?? null;
            if ($part === $was) {
                continue;
            }
            if ($was === null) {
                $cells["parts/{$ref}"] = $cells['parts'] = true;

                continue;
            }
            $here = self::ofPart($was, $part);
            if ($here === []) {
                continue;
            }
            if (! self::carryAlike($was, $part)) {
                $chosen ??= self::chosen($before) + self::chosen($after);
                if (isset($chosen[$ref])) {
                    return null;
                }
            }
            $cells += $here;
            $cells['parts'] = true;
        }
        if (array_keys($then) !== array_keys($now)) {
            $cells['parts'] = true;
        }

        return $cells;
    }

    /**
     * Notes and where it was taken from are left out: no check reads them.
     *
     * @return array<string, true> cells of one part that have changed
     */
    private static function ofPart(Part $was, Part $part): array
    {
        $cells = [];
        foreach ($was->specs + $part->specs as $key => $spec) {
            if (! Same::values($was->specs[$key] ?? null, $part->specs[$key] ?? null)) {
                $cells["parts/{$part->ref}/{$key}"] = true;
            }
        }
        if (
            $was->name !== $part->name ||
            $was->family !== $part->family ||
            ! Same::values($was->ports, $part->ports) ||
            array_keys($was->specs) !== array_keys($part->specs)
        ) {
            $cells["parts/{$part->ref}"] = true;
        }

        return $cells;
    }

    /** Whether the ports that carry power are the same of one part and another, so that circuits lie as they did. */
    private static function carryAlike(?Part $one, ?Part $other): bool
    {
        $ports = static fn (?Part $p): array => array_filter(
            $p->ports ?? [],
            static fn (Port $port): bool => $port->kind->carriesPower(),
        );
        [$then, $now] = [$ports($one), $ports($other)];
        if (array_keys($then) !== array_keys($now)) {
            return false;
        }
        foreach ($then as $name => $port) {
            if (! $port->connectsAs($now[$name])) {
                return false;
            }
        }

        return true;
    }
}
