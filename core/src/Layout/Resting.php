<?php

declare(strict_types=1);

namespace Magpie\Core\Layout;

use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Along;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Placing\Anchor;
use Magpie\Core\Machine\Placing\Place;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;

/** What a finding about bodies rests on: their sizes, where somebody says they are, and the travel of what carries them. */
final class Resting
{
    /** On all of it: any body that were larger could meet any other. What has no place yet is missing. */
    public static function onAll(Inquiry $inquiry, Layout $layout): void
    {
        foreach ($layout->waiting as $ref => $why) {
            $place = $inquiry->build->places[$ref];
            $called = Layout::called($inquiry->build, $place);
            $size = self::unsized($inquiry->build, $place);
            $size === null
                ? $inquiry->miss("the place of {$called}: {$why}", "places/{$ref}")
                : $inquiry->miss("size of {$called}", $size);
        }
        self::on($inquiry, ...array_map(strval(...), array_keys($inquiry->build->places)));
        $carried = array_map(static fn (Body $body): array => $body->carried, array_values($layout->bodies));
        self::onTravel($inquiry, array_unique(array_merge(...$carried)));
    }

    /** Where the first of its sides would be written that nobody knows. */
    private static function unsized(Build $build, Place $place): ?string
    {
        $part = $place->need === null ? null : $build->fitted($place->need)?->part;
        foreach (Layout::sizes($build, $place) as $i => $size) {
            if ($size === null) {
                $key = $part?->family->sides()[$i] ?? null;

                return $part === null || $key === null
                    ? "places/{$place->ref}/size/".['length', 'width', 'height'][$i]
                    : "parts/{$part->ref}/specs/{$key}";
            }
        }

        return null;
    }

    /** On all that the length of a way follows from. */
    public static function onWay(Inquiry $inquiry, Survey $survey, Way $way): void
    {
        self::on($inquiry, ...$way->places);
        self::onTravel($inquiry, $way->axes);
        $bodies = Layout::of($survey)->bodies;
        foreach ($way->chains as $key) {
            $chain = $inquiry->build->fitted($bodies[$key]->place->need ?? '');
            if ($chain !== null) {
                // Its own length, or the bend it follows from where nobody says one.
                $inquiry->tryRead($chain, 'length', 'L_k') ?? $inquiry->tryRead($chain, 'bend_radius', 'R');
            }
        }
    }

    /** On some places, on all they are told from, and on what these rest on. */
    public static function on(Inquiry $inquiry, string ...$places): void
    {
        foreach (self::closed($inquiry, array_values($places)) as $place) {
            self::sizes($inquiry, $place);
            $inquiry->given(
                'where '.Layout::called($inquiry->build, $place).' sits',
                "p_{$place->ref}",
                self::from($place),
                // A position nobody has measured is what the builder decided on, as a manual would say it.
                $place->evidence ?? Evidence::Manual,
                "places/{$place->ref}",
            );
        }
    }

    /**
     * @param  list<string>  $refs
     * @return list<Place> with all they are told from
     */
    private static function closed(Inquiry $inquiry, array $refs): array
    {
        $closed = [];
        while ($refs !== []) {
            $ref = array_pop($refs);
            $place = $inquiry->build->places[$ref] ?? null;
            if ($place === null || isset($closed[$ref])) {
                continue;
            }
            $closed[$ref] = $place;
            foreach (
                [$place->on, ...array_map(static fn ($p): ?string => $p?->of, array_values($place->at))] as $other
            ) {
                if ($other !== null) {
                    $refs[] = $other;
                }
            }
            foreach ($place->at as $position) {
                if (
                    $place->on === null &&
                    $position !== null &&
                    $position->of === null &&
                    $position->at !== Anchor::Low
                ) {
                    self::onOutline($inquiry);
                }
            }
        }

        return array_values($closed);
    }

    /** The outline, and which way it lies. */
    public static function onOutline(Inquiry $inquiry): void
    {
        // Which way its length lies follows from the longest travel.
        foreach ($inquiry->build->axes as $ref => $axis) {
            self::onTravel($inquiry, $axis->along === Along::Z ? [] : [(string) $ref]);
        }
        $outline = $inquiry->build->brief->outline;
        foreach (
            ['length' => $outline->length, 'width' => $outline->width, 'height' => $outline->height] as $name => $side
        ) {
            $inquiry->given(
                "outer {$name} of the machine",
                $name[0],
                $side,
                $outline->evidence,
                "brief/outline/{$name}",
            );
        }
    }

    private static function sizes(Inquiry $inquiry, Place $place): void
    {
        $need = $place->need ?? ($place->zone === null ? null : $inquiry->build->zones[$place->zone]->box ?? null);
        $fitted = $need === null ? null : $inquiry->build->fitted($need);
        foreach ($fitted?->part->family->sides() ?? [] as $i => $key) {
            if ($key !== null && $place->size[$i] === null && $fitted !== null) {
                $inquiry->claims($fitted, $key);
            }
        }
    }

    /** A figure to show for its position: how far it is told to be, along the first direction that says so. */
    private static function from(Place $place): Quantity
    {
        foreach ($place->at as $position) {
            if ($position?->by !== null) {
                return $position->by;
            }
        }

        return Quantity::of(0, 'mm');
    }

    /**
     * @param  iterable<string>  $axes
     */
    public static function onTravel(Inquiry $inquiry, iterable $axes): void
    {
        foreach ($axes as $ref) {
            $axis = $inquiry->build->axes[$ref];
            $figures = Inquiry::forFigures($inquiry->survey, $inquiry->subject);
            try {
                UsableTravel::of($figures, $axis);
            } catch (InputMissing) {
                $inquiry->miss("travel of {$axis->name}", "axes/{$ref}");
            }
            $inquiry->absorb($figures->inputs());
        }
    }

    /** A length as a sentence says it. */
    public static function mm(float $mm): Quantity
    {
        return Quantity::of(round($mm, abs($mm) < 10 ? 2 : 1), 'mm');
    }
}
