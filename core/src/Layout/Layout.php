<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Need;
use Magpie\Core\Machine\Placing\Anchor;
use Magpie\Core\Machine\Placing\Place;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;

/**
 * Where everything sits, worked from the rules of its places; and what has none yet, with the reason. It is kept while other parts
 * of a build change, so what is asked of it later comes with the build of that moment.
 */
final class Layout
{
    /** @var array<string, Body> by key */
    public readonly array $bodies;

    /** @var array<string, string> place → why it cannot be told where that is */
    public readonly array $waiting;

    /** @var array<string, float|null> axis → what it can travel, mm; null where nobody knows */
    public readonly array $travel;

    /** The room the machine takes, as its brief has it; sides that are not given are not there. */
    public readonly ?Box $outline;

    /** @var array<string, array{Box, list<string>, list<string>}|string> place → first piece, axes, what it stands on; or why not */
    private array $found = [];

    /** @var array<string, true> places being worked, to find those that go round in a circle */
    private array $working = [];

    private readonly Build $build;

    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $s): self => new self($s));
    }

    private function __construct(private readonly Survey $survey)
    {
        $this->build = $survey->build;
        $travel = [];
        foreach ($this->build->axes as $ref => $axis) {
            $travel[(string) $ref] = $this->travelOf((string) $ref);
        }
        $this->travel = $travel;
        $outline = $this->build->brief->outline;
        $sides = [$outline->length?->in('mm'), $outline->width?->in('mm')];
        // The length of a machine lies along the longer of its two level axes; along x where they are alike or unknown.
        [$x, $y] = $this->longest(Along::Y) > $this->longest(Along::X) ? [$sides[1], $sides[0]] : $sides;
        $this->outline =
            $x === null || $y === null || $outline->height === null
                ? null
                : new Box([0.0, 0.0, 0.0], [$x, $y, $outline->height->in('mm')]);
        $bodies = $waiting = [];
        foreach ($this->build->places as $ref => $place) {
            $found = $this->find((string) $ref);
            if (is_string($found)) {
                $waiting[(string) $ref] = $found;

                continue;
            }
            [$box, $carried, $stands] = $found;
            foreach (self::pieces($this->build, $place) as $i => $label) {
                $step = $place->row === null ? 0.0 : $i * ($place->pitch?->in('mm') ?? 0.0);
                $key = $i === 0 ? (string) $ref : "{$ref}#".($i + 1);
                $bodies[$key] = new Body(
                    $key,
                    $place,
                    $label,
                    $this->kind($place),
                    $box->moved([
                        $place->row === Along::X ? $step : 0.0,
                        $place->row === Along::Y ? $step : 0.0,
                        $place->row === Along::Z ? $step : 0.0,
                    ]),
                    $carried,
                    $stands,
                    $place->zone === null,
                    $place->zone !== null || $this->encloses($place),
                );
            }
        }
        $this->bodies = $bodies;
        $this->waiting = $waiting;
    }

    public static function index(Along $along): int
    {
        return match ($along) {
            Along::X => 0,
            Along::Y => 1,
            Along::Z => 2,
        };
    }

    /** The longest travel along a direction, nought where nobody knows. */
    private function longest(Along $along): float
    {
        $longest = 0.0;
        foreach ($this->build->axes as $ref => $axis) {
            $longest = max($longest, $axis->along === $along ? $this->travel[(string) $ref] ?? 0.0 : 0.0);
        }

        return $longest;
    }

    private function travelOf(string $ref): ?float
    {
        $axis = $this->build->axes[$ref];
        try {
            $usable = UsableTravel::of(Inquiry::forFigures($this->survey, Subject::ofAxis($axis)), $axis);
        } catch (InputMissing) {
            return null;
        }

        return max(0.0, $usable->in('mm'));
    }

    private function kind(Place $place): string
    {
        return match (true) {
            $place->zone !== null => 'zone',
            $place->workpiece !== null => 'workpiece',
            $place->duct !== null => 'duct',
            $place->need !== null => 'part',
            default => 'other',
        };
    }

    private function encloses(Place $place): bool
    {
        return $place->need !== null && $this->build->fitted($place->need)?->part->can(Ability::Encloses) === true;
    }

    /** What a person calls what sits there. */
    public static function called(Build $build, Place $place): string
    {
        return match (true) {
            $place->need !== null => $build->roleOf($place->need),
            $place->zone !== null => $build->zones[$place->zone]->name,
            $place->workpiece !== null => $build->workpieces[$place->workpiece]->name,
            default => (string) $place->name,
        };
    }

    /**
     * @return list<string> what each piece that stands here is called
     */
    private static function pieces(Build $build, Place $place): array
    {
        $need = $place->need === null ? null : $build->need($place->need);
        if ($need === null) {
            return [self::called($build, $place)];
        }
        if ($place->row === null) {
            return [$place->piece === null ? $need->role : $need->pieceName($place->piece)];
        }

        return array_map(
            static fn (int $n): string => $need->pieceName($n),
            range($place->piece ?? 1, max($place->piece ?? 1, $need->quantity)),
        );
    }

    /**
     * @return array{Box, list<string>, list<string>}|string
     */
    private function find(string $ref): array|string
    {
        if (isset($this->found[$ref])) {
            return $this->found[$ref];
        }
        if (isset($this->working[$ref])) {
            $round = array_slice(
                array_keys($this->working),
                (int) array_search($ref, array_keys($this->working), true),
            );

            return 'it goes round in a circle: '.
                implode(', ', array_map(fn (string|int $one): string => $this->name((string) $one), $round)).
                ' are each placed by the next';
        }
        $this->working[$ref] = true;
        $found = $this->work($this->build->places[$ref]);
        unset($this->working[$ref]);

        return $this->found[$ref] = $found;
    }

    private function name(string $ref): string
    {
        return self::called($this->build, $this->build->places[$ref]);
    }

    /**
     * @return array{Box, list<string>, list<string>}|string
     */
    private function work(Place $place): array|string
    {
        $sizes = array_map(static fn (?Quantity $q): ?float => $q?->in('mm'), self::sizes($this->build, $place));
        $missing = array_keys(
            array_filter(
                ['length', 'width', 'height'],
                static fn (int $i): bool => $sizes[$i] === null,
                ARRAY_FILTER_USE_KEY,
            ),
        );
        if ($missing !== []) {
            $names = array_map(static fn (int $i): string => ['length', 'width', 'height'][$i], $missing);

            return 'its '.implode(' and ', $names).(count($names) === 1 ? ' is' : ' are').' not known';
        }
        $host = null;
        if ($place->on !== null) {
            $host = $this->find($place->on);
            if (is_string($host)) {
                return "what it stands on has no place: {$this->name($place->on)}: {$host}";
            }
        }
        $low = $high = [0.0, 0.0, 0.0];
        foreach ($place->turned->order() as $d => $side) {
            $along = Along::words()[$d];
            $position = $place->at[$along];
            if ($position === null) {
                return "nobody says where it is along {$along}";
            }
            $from = $host[0] ?? $this->outline;
            if ($position->of !== null) {
                $other = $this->find($position->of);
                if (is_string($other)) {
                    return "it is told from {$this->name($position->of)}, and {$other}";
                }
                $from = $other[0];
            }
            if ($from === null && $position->at !== Anchor::Low) {
                return 'the outline of the machine is not known, and it is told from that';
            }
            $length = (float) $sizes[$side];
            $by = $position->by?->in('mm') ?? 0.0;
            $low[$d] = match ($position->at) {
                Anchor::Low => ($from->low[$d] ?? 0.0) + $by,
                Anchor::Centre => (float) $from?->middle($d) - $length / 2 + $by,
                Anchor::High => ($from->high[$d] ?? 0.0) - $by - $length,
                Anchor::After => ($from->high[$d] ?? 0.0) + $by,
                Anchor::Before => ($from->low[$d] ?? 0.0) - $by - $length,
            };
            $high[$d] = $low[$d] + $length;
        }
        $carried = array_values(array_unique([...$host[1] ?? [], ...$place->moves]));

        return [new Box($low, $high), $carried, $place->on === null ? [] : [$place->on, ...$host[2] ?? []]];
    }

    /**
     * Its length, width and height: what the place says before what the sheet says, the largest where that is a range.
     *
     * @return array{Quantity|null, Quantity|null, Quantity|null}
     */
    public static function sizes(Build $build, Place $place): array
    {
        $need = $place->need ?? ($place->zone === null ? null : $build->zones[$place->zone]->box ?? null);
        $fitted = $need === null ? null : $build->fitted($need);
        $piece = $place->workpiece === null ? null : $build->workpieces[$place->workpiece] ?? null;
        $own = [$piece?->length, $piece?->width, $piece?->height];
        foreach ($fitted?->part->family->sides() ?? [] as $i => $key) {
            $own[$i] = $key === null ? null : $fitted?->part->spec($key)?->highest();
        }

        return [$place->size[0] ?? $own[0], $place->size[1] ?? $own[1], $place->size[2] ?? $own[2]];
    }

    /**
     * @return list<Body> the pieces of a part that have a place; of one that sits in another, those of that
     */
    public function ofNeed(Build $build, string $need): array
    {
        $found = array_values(array_filter($this->bodies, static fn (Body $body): bool => $body->place->need === $need));
        $host = $found === [] ? $build->need($need)?->host() : null;

        return $host === null || $host === $need ? $found : $this->ofNeed($build, $host);
    }

    /**
     * Parts with a size of their own that have no place yet, or not all their pieces.
     *
     * @return list<array{need: Need, pieces: int}> and how many are left
     */
    public function tray(Build $build): array
    {
        $placed = [];
        foreach ($build->places as $place) {
            if ($place->need !== null) {
                $placed[$place->need] = ($placed[$place->need] ?? 0) + count(self::pieces($build, $place));
            }
        }
        $tray = [];
        foreach ($build->needs as $ref => $need) {
            $left = $need->quantity - ($placed[$ref] ?? 0);
            $sides = $build->fitted((string) $ref)?->part->family->sides() ?? [];
            if ($left > 0 && $need->seat === null && array_filter($sides) !== []) {
                $tray[] = ['need' => $need, 'pieces' => $left];
            }
        }

        return $tray;
    }
}
