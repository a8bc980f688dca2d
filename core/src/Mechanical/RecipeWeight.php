<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical;

use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Part;
use Magpie\Core\Printing\Recipe;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/** What a printed part weighs by its volume, walls and infill, as a check reads it. */
final class RecipeWeight
{
    /**
     * @param  string  $called  what a person calls the part
     *
     * @throws InputMissing where the sheet does not say enough
     */
    public static function of(Inquiry $inquiry, Part $part, string $called): Quantity
    {
        return self::tryOf($inquiry, $part, $called) ?? throw new InputMissing;
    }

    /** The mass its sheet tells, else what its recipe gives; null, with what is missing named, where neither is known. */
    public static function orTold(Inquiry $inquiry, Part $part, string $called, string $symbol): ?Quantity
    {
        $told = $inquiry->tryPart($part, 'mass', $symbol);
        if ($told !== null || $part->spec('volume') !== null) {
            return $told ?? self::tryOf($inquiry, $part, $called);
        }

        return $inquiry->miss("mass of {$called}", "parts/{$part->ref}/specs/mass");
    }

    /** As of(), but null, with what is missing named. */
    public static function tryOf(Inquiry $inquiry, Part $part, string $called): ?Quantity
    {
        $material = $inquiry->tryPartChoice($part, 'material');
        $density = $material === null ? null : Materials::density($material);
        if ($density === null) {
            return $inquiry->miss("material of {$called}", "parts/{$part->ref}/specs/material");
        }
        $volume = self::size($inquiry, $part, $called, 'volume', 'V');
        $infill = self::size($inquiry, $part, $called, 'infill', 'i');
        $walls = self::walls($inquiry, $part, $volume) ?? self::size($inquiry, $part, $called, 'wall_share', 'w');
        if ($volume === null || $infill === null || $walls === null) {
            return null;
        }

        return $inquiry->work(
            'Weight by its recipe',
            'm_r = ρ × V × (w + (1 − w) × i)',
            ['V' => $volume, 'w' => $walls, 'i' => $infill],
            Quantity::of(Recipe::weigh($density, $volume->in('cm³'), $walls->in(''), $infill->in('')), 'g'),
            'g',
        );
    }

    /** What was weighed, as a share of what the recipe gives. */
    public static function share(Inquiry $inquiry, Quantity $mass, Quantity $given): Quantity
    {
        return $inquiry->work(
            'Weighed, of that',
            'k = m / m_r',
            ['m' => $mass, 'm_r' => $given],
            $mass->over($given),
            '%',
        );
    }

    /** The share of its volume that is wall, where its sheet does not say, but its surface and walls are known. */
    private static function walls(Inquiry $inquiry, Part $part, ?Quantity $volume): ?Quantity
    {
        if ($part->spec('wall_share') !== null || $volume?->isPositive() !== true) {
            return null;
        }
        $area = $inquiry->tryPart($part, 'area', 'A');
        $walls = $inquiry->tryPart($part, 'walls', 'n');
        if ($area === null || $walls === null) {
            return null;
        }
        $line = $inquiry->tryPart($part, 'line_width', 'b') ?? Quantity::of(Recipe::LINE, 'mm');

        return $inquiry->work(
            'Share of it that is wall',
            'w = A × n × b / V',
            ['A' => $area, 'n' => $walls, 'b' => $line, 'V' => $volume],
            Quantity::ratio(Recipe::wallShare($area->in('mm²'), $walls->in(''), $line->in('mm'), $volume->in('mm³'))),
            '%',
        );
    }

    private static function size(Inquiry $inquiry, Part $part, string $called, string $key, string $symbol): ?Quantity
    {
        $found = $inquiry->tryPart($part, $key, $symbol);
        if ($found === null) {
            $inquiry->missSize(
                lcfirst($part->family->field($key)->label ?? $key)." of {$called}",
                "parts/{$part->ref}/specs/{$key}",
            );
        }

        return $found;
    }
}
