<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Machine\Work\Papers;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Quantity\Quantity;

/**
 * Every name in a build must name something: leads end at ports that exist, needs choose parts that exist. What names
 * what is declared by the sections themselves.
 */
final class References
{
    /** One of a section, in words. */
    private const ONE = [
        'parts' => 'part',
        'needs' => 'need',
        'steps' => 'step',
        'axes' => 'axis',
        'routes' => 'route',
        'suppliers' => 'supplier',
        'printers' => 'printer',
        'documents' => 'document',
        'leads' => 'lead',
        'faults' => 'fault',
        'places' => 'place',
        'zones' => 'zone',
        'workpieces' => 'workpiece',
    ];

    /**
     * @param  Build|null  $earlier  one that was found sound: what stands there as it does here, and names what does, is
     *     not looked at again
     *
     * @throws CannotReadBuildFile for the first name that names nothing
     */
    public static function check(Build $build, ?Build $earlier = null): void
    {
        foreach ([self::dangling($build, $earlier), self::beyondNames($build, $earlier)] as $all) {
            foreach ($all as [$pointer, $reason]) {
                throw CannotReadBuildFile::at($pointer, $reason);
            }
        }
    }

    /**
     * Where an entry is used: a reader's list of places that would be left pointing at nothing.
     *
     * @return list<string>
     */
    public static function usesOf(Build $build, string $section, string $ref): array
    {
        $uses = [];
        foreach (self::linking() as $key => $linking) {
            foreach ($build->{$key} as $entry) {
                foreach ($linking->links($entry) as $link) {
                    if ($link->to === $section && $link->ref === $ref) {
                        $uses[] = $linking->said($entry);
                        break;
                    }
                }
            }
        }

        return $uses;
    }

    /**
     * @return array<string, Linking<object>> by section
     */
    private static function linking(): array
    {
        return array_filter(BuildFile::sections(), static fn (Section $s): bool => $s instanceof Linking);
    }

    /**
     * @return iterable<array{string, string}> pointer and reason
     */
    private static function dangling(Build $build, ?Build $earlier): iterable
    {
        $sound = $earlier !== null && self::keepsNames($build, $earlier) ? $earlier : null;
        $sections = [];
        foreach (self::linking() as $key => $linking) {
            [$entries, $was] = [$build->{$key}, $sound->{$key} ?? []];
            $i = -1;
            foreach ($entries === $was ? [] : $entries as $ref => $entry) {
                $i++;
                if (($was[$ref] ?? null) === $entry) {
                    continue;
                }
                foreach ($linking->links($entry) as $link) {
                    $sections[$link->to] ??= $build->{$link->to};
                    $named = $sections[$link->to][$link->ref] ?? null;
                    $wrong =
                        $link->families !== [] &&
                        $named instanceof Need &&
                        ! in_array($named->family, $link->families, true);
                    if ($named === null || $wrong) {
                        yield [
                            "/{$key}/{$i}/{$link->at}",
                            match (true) {
                                $named === null => 'there is no '.self::ONE[$link->to]." \"{$link->ref}\".",
                                $link->what !== null => "\"{$link->ref}\" is no {$link->what}.",
                                default => "\"{$link->ref}\" is none of: ".
                                    strtr(implode(', ', $link->families), '_', ' ').
                                    '.',
                            },
                        ];
                    }
                }
            }
        }
    }

    /** Whether every name that was there is there still, and every need asks for the family it did. */
    private static function keepsNames(Build $build, Build $earlier): bool
    {
        foreach (array_keys(self::ONE) as $section) {
            [$now, $then] = [$build->{$section}, $earlier->{$section}];
            if ($now !== $then && array_diff_key($then, $now) !== []) {
                return false;
            }
        }
        foreach ($earlier->needs as $ref => $need) {
            if ($build->needs[$ref]->family !== $need->family) {
                return false;
            }
        }

        return true;
    }

    /**
     * What is there, and still cannot be meant.
     *
     * @return iterable<array{string, string}> pointer and reason
     */
    private static function beyondNames(Build $build, ?Build $earlier): iterable
    {
        $filled = self::filledAlike($build, $earlier);
        foreach (array_values($build->needs) as $i => $need) {
            if (isset($filled[$need->ref]) && ($need->seat === null || isset($filled[(string) $need->host()]))) {
                continue;
            }
            $reason = $need->seat === null ? null : self::unfitSeat($build, $need);
            if ($reason !== null) {
                yield ["/needs/{$i}/sits_in", $reason];
            }
            $part = $build->parts[$need->choice ?? ''] ?? null;
            if ($part !== null && $part->family->key() !== $need->family) {
                yield [
                    "/needs/{$i}/choice",
                    "\"{$need->choice}\" is a {$part->family->title()}; this need asks for another family ({$need->family}).",
                ];
            }
        }
        $then = $earlier->leads ?? [];
        foreach (array_values($build->leads) as $i => $lead) {
            if (($then[$lead->ref] ?? null) === $lead && isset($filled[$lead->from->need], $filled[$lead->to->need])) {
                continue;
            }
            foreach (['from' => $lead->from, 'to' => $lead->to] as $side => $port) {
                $reason = self::portMissing($build, $port);
                if ($reason !== null) {
                    yield ["/leads/{$i}/{$side}", $reason];
                }
            }
            if ($lead->from->text() === $lead->to->text()) {
                yield ["/leads/{$i}/to", 'a lead cannot end where it begins.'];
            }
        }
        $circle = $build->steps === $earlier?->steps ? [] : Sequence::circle($build->steps);
        if ($circle !== []) {
            yield ['/steps', 'these steps wait for each other in a circle: '.implode(' → ', $circle).'.'];
        }
        $circle = Papers::circle($build->documents);
        if ($circle !== []) {
            yield [
                '/documents',
                'these documents prevail over each other in a circle: '.implode(' → ', $circle).'.',
            ];
        }
        foreach (array_values($build->prints) as $i => $run) {
            $part = $build->parts[$run->part];
            if (! $part->can(Ability::Printed)) {
                yield ["/prints/{$i}/part", "\"{$run->part}\" is a {$part->family->title()}, not a printed part."];
            }
        }
        $stands = [];
        foreach (array_values($build->zones) as $i => $zone) {
            foreach ($zone->holds as $j => $need) {
                if (isset($stands[$need])) {
                    yield ["/zones/{$i}/holds/{$j}", "{$build->roleOf($need)} already stands in {$stands[$need]}."];
                }
                $stands[$need] = $zone->name;
            }
        }
        yield from self::largerThanTheRoom($build);
    }

    /**
     * Needs that ask for what they did, and are filled with what they were.
     *
     * @return array<string, true>
     */
    private static function filledAlike(Build $build, ?Build $earlier): array
    {
        if ($earlier === null) {
            return [];
        }
        $alike = [];
        [$needs, $now, $then] = [$earlier->needs, $build->parts, $earlier->parts];
        foreach ($build->needs as $ref => $need) {
            $choice = $need->choice ?? '';
            if (($needs[$ref] ?? null) === $need && ($now[$choice] ?? null) === ($then[$choice] ?? null)) {
                $alike[$ref] = true;
            }
        }

        return $alike;
    }

    /**
     * @return iterable<array{string, string}>
     */
    private static function largerThanTheRoom(Build $build): iterable
    {
        $room = $build->site;
        foreach (array_values($build->workpieces) as $i => $piece) {
            foreach (
                [
                    'length' => [$piece->length, $room->roomLength, $room->roomWidth],
                    'width' => [$piece->width, $room->roomLength, $room->roomWidth],
                    'height' => [$piece->height, $room->roomHeight, null],
                ] as $side => [$size, $one, $other]
            ) {
                $limit =
                    $one !== null && $other !== null ? Quantity::max($one, $other) : ($other === null ? $one : null);
                if ($size !== null && $limit !== null && $size->exceeds($limit)) {
                    yield [
                        "/workpieces/{$i}/{$side}",
                        "{$piece->name} would be {$size->text()}; the room ends at {$limit->text()}.",
                    ];
                }
            }
        }
    }

    private static function unfitSeat(Build $build, Need $need): ?string
    {
        $host = (string) $need->host();
        $port = explode('.', (string) $need->seat, 2)[1] ?? null;
        $hosts = Catalogue::standard()->find($need->family)?->hosts() ?? [];
        if ($host === $need->ref || ! in_array($build->needs[$host]->family, $hosts, true)) {
            return "a {$need->family} does not sit in a {$build->needs[$host]->family}.";
        }

        return $port === null ? null : self::portMissing($build, new PortRef($host, $port));
    }

    private static function portMissing(Build $build, PortRef $port): ?string
    {
        $fitted = $build->fitted($port->need);
        if ($fitted === null || isset($fitted->part->ports[$port->port])) {
            // A need without a choice keeps its leads: the ports come with the part.
            return null;
        }
        $known = implode(', ', array_keys($fitted->part->ports));

        return "\"{$fitted->part->name}\" has no port \"{$port->port}\" (it has: ".
            ($known === '' ? 'none' : $known).
            ').';
    }
}
