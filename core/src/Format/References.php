<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\PortRef;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Quantity\Quantity;

/**
 * Every name in a build must name something: leads end at ports that exist, needs choose parts that exist.
 */
final class References
{
    /**
     * @throws CannotReadBuildFile for the first name that names nothing
     */
    public static function check(Build $build): void
    {
        foreach (self::dangling($build) as [$pointer, $reason]) {
            throw CannotReadBuildFile::at($pointer, $reason);
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
        $note = static function (string $kind, string $name) use (&$uses): void {
            $uses[] = "{$kind} {$name}";
        };
        foreach ($build->needs as $need) {
            if ($section === 'parts' && ($need->choice === $ref || in_array($ref, $need->candidates, true))) {
                $note('need', $need->role);
            }
            if ($section === 'needs' && $need->host() === $ref) {
                $note('need', $need->role);
            }
        }
        foreach ($build->leads as $lead) {
            $ends = array_filter([$lead->ends[0]->contact, $lead->ends[1]->contact]);
            if (
                ($section === 'needs' &&
                    in_array($ref, [$lead->from->need, $lead->to->need, $lead->protection, $lead->chain], true)) ||
                ($section === 'parts' && in_array($ref, $ends, true))
            ) {
                $note('lead', $lead->ref);
            }
        }
        foreach ($build->mates as $mate) {
            $screws = array_map(static fn ($s) => $s->screw, $mate->screws);
            if ($section === 'needs' && in_array($ref, [...$mate->between, ...$screws], true)) {
                $note('mate', $mate->ref);
            }
        }
        foreach ($build->scenarios as $scenario) {
            if ($section === 'needs' && isset($scenario->loads[$ref])) {
                $note('scenario', $scenario->name);
            }
        }
        foreach ([...$build->offers, ...$build->purchases] as $line) {
            if (
                ($section === 'parts' && $line->part === $ref) ||
                ($section === 'suppliers' && $line->supplier === $ref)
            ) {
                $note('price', $line->ref);
            }
        }
        foreach ($build->steps as $step) {
            if (
                ($section === 'needs' && isset($step->uses[$ref])) ||
                ($section === 'steps' && in_array($ref, $step->after, true))
            ) {
                $note('step', $step->title);
            }
        }
        foreach ($build->faults as $fault) {
            if (($section === 'needs' && $fault->need === $ref) || ($section === 'steps' && $fault->step === $ref)) {
                $note('fault', $fault->what);
            }
        }
        foreach ($build->axes as $axis) {
            if (
                $section === 'needs' &&
                in_array(
                    $ref,
                    [
                        $axis->rail,
                        $axis->drive->by,
                        $axis->drive->board,
                        $axis->drive->beam,
                        ...$axis->drive->motors,
                        ...$axis->drive->carries,
                        ...$axis->homing->sensors,
                    ],
                    true,
                )
            ) {
                $note('axis', $axis->name);
            }
        }
        foreach ($build->zones as $zone) {
            if ($section === 'needs' && in_array($ref, [$zone->box, ...$zone->holds], true)) {
                $note('zone', $zone->name);
            }
        }
        foreach ($build->clearances as $clearance) {
            if (
                $section === 'axes' &&
                in_array($ref, [...$clearance->between[0]->moves, ...$clearance->between[1]->moves], true)
            ) {
                $note('clearance', $clearance->name);
            }
        }
        foreach ($build->routes as $route) {
            $suppliers = array_map(static fn ($l) => $l->supplier, $route->lines);
            if (
                ($section === 'needs' && in_array($ref, $route->needs, true)) ||
                ($section === 'suppliers' && in_array($ref, $suppliers, true))
            ) {
                $note('route', $route->name);
            }
        }
        foreach ($build->decisions as $decision) {
            $taken = ['parts' => 'part', 'routes' => 'route'][$section] ?? null;
            if (
                ($section === 'needs' && $decision->need === $ref) ||
                ($taken === $decision->about && $decision->choice === $ref)
            ) {
                $note('decision', "\"{$decision->question}\"");
            }
        }
        foreach ($build->revisions as $revision) {
            if ($section === 'parts' && $revision->part === $ref) {
                $note('revision', "{$revision->name} {$revision->revision}");
            }
        }

        return $uses;
    }

    /**
     * @return iterable<array{string, string}> pointer and reason
     */
    private static function dangling(Build $build): iterable
    {
        $i = 0;
        foreach ($build->needs as $need) {
            foreach ($need->candidates as $j => $candidate) {
                if (! isset($build->parts[$candidate])) {
                    yield ["/needs/{$i}/candidates/{$j}", "there is no part \"{$candidate}\"."];
                }
            }
            if ($need->seat !== null) {
                $reason = self::seatMissing($build, $need);
                if ($reason !== null) {
                    yield ["/needs/{$i}/sits_in", $reason];
                }
            }
            if ($need->choice !== null) {
                $part = $build->parts[$need->choice] ?? null;
                if ($part === null) {
                    yield ["/needs/{$i}/choice", "there is no part \"{$need->choice}\"."];
                } elseif ($part->family->key() !== $need->family) {
                    yield [
                        "/needs/{$i}/choice",
                        "\"{$need->choice}\" is a {$part->family->title()}; this need asks for another family ({$need->family}).",
                    ];
                }
            }
            $i++;
        }
        $i = 0;
        foreach ($build->leads as $lead) {
            foreach (['from' => $lead->from, 'to' => $lead->to] as $side => $port) {
                $reason = self::portMissing($build, $port);
                if ($reason !== null) {
                    yield ["/leads/{$i}/{$side}", $reason];
                }
            }
            if ($lead->from->text() === $lead->to->text()) {
                yield ["/leads/{$i}/to", 'a lead cannot end where it begins.'];
            }
            if ($lead->protection !== null && ! isset($build->needs[$lead->protection])) {
                yield ["/leads/{$i}/protection", "there is no need \"{$lead->protection}\"."];
            }
            if ($lead->chain !== null && ($build->needs[$lead->chain] ?? null)?->family !== 'cable_chain') {
                yield [
                    "/leads/{$i}/chain",
                    isset($build->needs[$lead->chain])
                        ? "\"{$lead->chain}\" is no cable chain."
                        : "there is no need \"{$lead->chain}\".",
                ];
            }
            foreach ($lead->ends as $j => $end) {
                if ($end->contact !== null && ! isset($build->parts[$end->contact])) {
                    yield ["/leads/{$i}/ends/{$j}/contact", "there is no part \"{$end->contact}\"."];
                }
            }
            $i++;
        }
        $i = 0;
        foreach ($build->mates as $mate) {
            foreach ($mate->between as $j => $need) {
                if (! isset($build->needs[$need])) {
                    yield ["/mates/{$i}/between/{$j}", "there is no need \"{$need}\"."];
                }
            }
            foreach ($mate->screws as $j => $stack) {
                if ($stack->screw !== null && ! isset($build->needs[$stack->screw])) {
                    yield ["/mates/{$i}/screws/{$j}/screw", "there is no need \"{$stack->screw}\"."];
                }
            }
            $i++;
        }
        $i = 0;
        foreach ($build->scenarios as $scenario) {
            foreach (array_keys($scenario->loads) as $need) {
                if (! isset($build->needs[$need])) {
                    yield ["/scenarios/{$i}/loads/{$need}", "there is no need \"{$need}\"."];
                }
            }
            $i++;
        }
        foreach (['offers' => $build->offers, 'purchases' => $build->purchases] as $section => $lines) {
            $i = 0;
            foreach ($lines as $line) {
                if (! isset($build->parts[$line->part])) {
                    yield ["/{$section}/{$i}/part", "there is no part \"{$line->part}\"."];
                }
                $i++;
            }
        }
        $i = 0;
        foreach ($build->steps as $step) {
            foreach ($step->after as $j => $before) {
                if (! isset($build->steps[$before])) {
                    yield ["/steps/{$i}/after/{$j}", "there is no step \"{$before}\"."];
                }
            }
            foreach (array_keys($step->uses) as $need) {
                if (! isset($build->needs[$need])) {
                    yield ["/steps/{$i}/uses/{$need}", "there is no need \"{$need}\"."];
                }
            }
            $i++;
        }
        $circle = Sequence::circle($build->steps);
        if ($circle !== []) {
            yield ['/steps', 'these steps wait for each other in a circle: '.implode(' → ', $circle).'.'];
        }
        $i = 0;
        foreach ($build->faults as $fault) {
            if ($fault->need !== null && ! isset($build->needs[$fault->need])) {
                yield ["/faults/{$i}/need", "there is no need \"{$fault->need}\"."];
            }
            if ($fault->step !== null && ! isset($build->steps[$fault->step])) {
                yield ["/faults/{$i}/step", "there is no step \"{$fault->step}\"."];
            }
            $i++;
        }
        yield from self::danglingInScope($build);
    }

    /**
     * @return iterable<array{string, string}>
     */
    private static function danglingInScope(Build $build): iterable
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
        foreach (array_values($build->axes) as $i => $axis) {
            if ($axis->rail !== null && ($build->needs[$axis->rail] ?? null)?->family !== 'linear_rail') {
                yield [
                    "/axes/{$i}/rail",
                    isset($build->needs[$axis->rail])
                        ? "\"{$axis->rail}\" is no rail."
                        : "there is no need \"{$axis->rail}\".",
                ];
            }
            $parts = [
                ['drive/by', $axis->drive->by, ['drive_screw', 'pulley']],
                ['drive/board', $axis->drive->board, ['controller_board']],
                ['drive/beam', $axis->drive->beam, ['extrusion']],
            ];
            foreach ($axis->drive->motors as $j => $motor) {
                $parts[] = ["drive/motors/{$j}", $motor, ['stepper_motor', 'servo_motor']];
            }
            foreach ($axis->drive->carries as $j => $carried) {
                if (! isset($build->needs[$carried])) {
                    yield ["/axes/{$i}/drive/carries/{$j}", "there is no need \"{$carried}\"."];
                }
            }
            foreach ($axis->homing->sensors as $j => $sensor) {
                $parts[] = ["homing/sensors/{$j}", $sensor, ['limit_switch', 'sensor', 'probe']];
            }
            foreach ($parts as [$where, $need, $families]) {
                if ($need !== null && ! in_array(($build->needs[$need] ?? null)?->family, $families, true)) {
                    yield [
                        "/axes/{$i}/{$where}",
                        isset($build->needs[$need])
                            ? "\"{$need}\" is none of: ".strtr(implode(', ', $families), '_', ' ').'.'
                            : "there is no need \"{$need}\".",
                    ];
                }
            }
        }
        $stands = [];
        foreach (array_values($build->zones) as $i => $zone) {
            if ($zone->box !== null && ($build->needs[$zone->box] ?? null)?->family !== 'cabinet') {
                yield [
                    "/zones/{$i}/box",
                    isset($build->needs[$zone->box])
                        ? "\"{$zone->box}\" is no cabinet."
                        : "there is no need \"{$zone->box}\".",
                ];
            }
            foreach ($zone->holds as $j => $need) {
                if (! isset($build->needs[$need])) {
                    yield ["/zones/{$i}/holds/{$j}", "there is no need \"{$need}\"."];
                } elseif (isset($stands[$need])) {
                    yield ["/zones/{$i}/holds/{$j}", "{$build->roleOf($need)} already stands in {$stands[$need]}."];
                }
                $stands[$need] = $zone->name;
            }
        }
        foreach (array_values($build->clearances) as $i => $clearance) {
            foreach ($clearance->between as $j => $side) {
                foreach ($side->moves as $k => $axis) {
                    if (! isset($build->axes[$axis])) {
                        yield ["/clearances/{$i}/between/{$j}/moves/{$k}", "there is no axis \"{$axis}\"."];
                    }
                }
            }
        }
        foreach (array_values($build->routes) as $i => $route) {
            foreach ($route->needs as $j => $need) {
                if (! isset($build->needs[$need])) {
                    yield ["/routes/{$i}/needs/{$j}", "there is no need \"{$need}\"."];
                }
            }
        }
        foreach (array_values($build->decisions) as $i => $decision) {
            if ($decision->need !== null && ! isset($build->needs[$decision->need])) {
                yield ["/decisions/{$i}/need", "there is no need \"{$decision->need}\"."];
            }
            $known = ['part' => $build->parts, 'route' => $build->routes][$decision->about] ?? null;
            if ($decision->choice !== null && $known !== null && ! isset($known[$decision->choice])) {
                yield ["/decisions/{$i}/choice", "there is no {$decision->about} \"{$decision->choice}\"."];
            }
        }
        foreach (array_values($build->revisions) as $i => $revision) {
            if ($revision->part !== null && ! isset($build->parts[$revision->part])) {
                yield ["/revisions/{$i}/part", "there is no part \"{$revision->part}\"."];
            }
        }
    }

    private static function seatMissing(Build $build, Need $need): ?string
    {
        $host = (string) $need->host();
        $port = explode('.', (string) $need->seat, 2)[1] ?? null;
        if (! isset($build->needs[$host])) {
            return "there is no need \"{$host}\".";
        }
        $hosts = Catalogue::standard()->find($need->family)?->hosts() ?? [];
        if ($host === $need->ref || ! in_array($build->needs[$host]->family, $hosts, true)) {
            return "a {$need->family} does not sit in a {$build->needs[$host]->family}.";
        }

        return $port === null ? null : self::portMissing($build, new PortRef($host, $port));
    }

    private static function portMissing(Build $build, PortRef $port): ?string
    {
        if (! isset($build->needs[$port->need])) {
            return "there is no need \"{$port->need}\".";
        }
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
