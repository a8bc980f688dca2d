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
        'workpieces',
        'axes',
        'routes',
        'decisions',
        'revisions',
        'zones',
        'clearances',
        'settings',
    ];

    /**
     * @param  array<string, true>  $cells  what reads one of them has to read again
     * @param  array<string, true>  $entries  "parts/M-57" of which anything has changed, if only a spec
     */
    private function __construct(public array $cells, public array $entries)
    {
    }

    /** Null when the builds hang together in different ways. */
    public static function between(Build $before, Build $after): ?self
    {
        if (! self::alike($before->scenarios, $after->scenarios)) {
            return null;
        }
        $needs = self::needs($before, $after);
        $leads = self::leads($before->leads, $after->leads);
        $parts = self::parts($before->parts, $after->parts, self::chosen($before) + self::chosen($after));
        if ($needs === null || $leads === null || $parts === null) {
            return null;
        }
        $entries = [];
        foreach (['needs' => $needs, 'leads' => $leads, 'parts' => $parts[1]] as $section => $refs) {
            foreach ($refs as $ref) {
                $entries["{$section}/{$ref}"] = $entries[$section] = true;
            }
        }
        $cells = [Reads::ALWAYS => true] + $parts[0];
        foreach (['needs' => $needs, 'leads' => $leads] as $section => $refs) {
            foreach ($refs as $ref) {
                $cells["{$section}/{$ref}"] = $cells[$section] = true;
            }
        }
        foreach (self::WHOLE as $section) {
            self::alike($before->{$section}, $after->{$section}) || ($cells[$section] = true);
        }
        foreach ($before->mates + $after->mates as $ref => $mate) {
            if (($before->mates[$ref] ?? null) != ($after->mates[$ref] ?? null)) {
                $cells["mates/{$ref}"] = $cells['mates'] = true;
            }
        }
        array_keys($before->mates) === array_keys($after->mates) || ($cells['mates'] = true);
        foreach (['plan', 'site', 'brief'] as $one) {
            $before->{$one} == $after->{$one} || ($cells[$one] = true);
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
        return $before === $after || (array_keys($before) === array_keys($after) && $before == $after);
    }

    /**
     * @return array<string, true>
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
     * @return list<string>|null refs of needs that have changed
     */
    private static function needs(Build $before, Build $after): ?array
    {
        [$then, $now] = [$before->needs, $after->needs];
        if (array_keys($then) !== array_keys($now)) {
            return null;
        }
        $changed = [];
        foreach ($now as $ref => $need) {
            $was = $then[$ref];
            if ($need === $was || $need == $was) {
                continue;
            }
            $one = $before->parts[$was->choice ?? ''] ?? null;
            $other = $after->parts[$need->choice ?? ''] ?? null;
            if ($need->family !== $was->family || ($one === null) !== ($other === null)) {
                return null;
            }
            if ($one !== null && $other !== null && ! self::connectAlike($one, $other)) {
                return null;
            }
            $changed[] = (string) $ref;
        }

        return $changed;
    }

    /**
     * @param  array<string, Lead>  $then
     * @param  array<string, Lead>  $now
     * @return list<string>|null
     */
    private static function leads(array $then, array $now): ?array
    {
        if (array_keys($then) !== array_keys($now)) {
            return null;
        }
        $changed = [];
        foreach ($now as $ref => $lead) {
            $was = $then[$ref];
            if ($lead === $was || $lead == $was) {
                continue;
            }
            if ($lead->from != $was->from || $lead->to != $was->to) {
                return null;
            }
            $changed[] = (string) $ref;
        }

        return $changed;
    }

    /**
     * @param  array<string, Part>  $then
     * @param  array<string, Part>  $now
     * @param  array<string, true>  $chosen  parts that fill a need in either build
     * @return array{array<string, true>, list<string>}|null cells, and refs of parts that have changed
     */
    private static function parts(array $then, array $now, array $chosen): ?array
    {
        $cells = $changed = [];
        foreach ($now + $then as $ref => $any) {
            $part = $now[$ref] ?? null;
            $was = $then[$ref] ?? null;
            if ($part === $was) {
                continue;
            }
            if ($part === null || $was === null) {
                $cells["parts/{$ref}"] = $cells['parts'] = true;
                $changed[] = (string) $ref;

                continue;
            }
            $here = self::ofPart($was, $part);
            if ($here === []) {
                continue;
            }
            if (isset($chosen[$ref]) && ! self::connectAlike($was, $part)) {
                return null;
            }
            $cells += $here;
            $cells['parts'] = true;
            $changed[] = (string) $ref;
        }
        array_keys($then) === array_keys($now) || ($cells['parts'] = true);

        return [$cells, $changed];
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
            if (($was->specs[$key] ?? null) != ($part->specs[$key] ?? null)) {
                $cells["parts/{$part->ref}/{$key}"] = true;
            }
        }
        if (
            $was->name !== $part->name ||
            $was->family !== $part->family ||
            $was->ports != $part->ports ||
            array_keys($was->specs) !== array_keys($part->specs)
        ) {
            $cells["parts/{$part->ref}"] = true;
        }

        return $cells;
    }

    /** Whether one part takes the place of another without a lead or a circuit being laid otherwise. */
    private static function connectAlike(Part $one, Part $other): bool
    {
        if ($one->family !== $other->family || array_keys($one->ports) !== array_keys($other->ports)) {
            return false;
        }
        foreach ($one->ports as $name => $port) {
            if (! $port->connectsAs($other->ports[$name])) {
                return false;
            }
        }

        return true;
    }
}
