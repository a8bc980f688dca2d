<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\PortSheet;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/**
 * Between what a value may lie that nobody knows, or that rests on too little: what its family has seen, and of what a
 * seller lists or a builder assumes, some times more and less. The times are common practice, no source.
 */
final class Plausible
{
    private const LISTED = 1.5;

    private const ASSUMED = 3.0;

    /** Of what has no unit, those that are a share and no count. */
    private const SHARES = ['power_factor', 'efficiency'];

    /** Kelvin by which a temperature may be off that is listed, or assumed. */
    private const KELVIN = ['listing' => 10.0, 'assumed' => 15.0];

    /**
     * @param  string  $where  as Input::$where
     * @param  Input|null  $given  what is said of it; null when nothing is
     * @return array{Quantity, Quantity}|null null where nothing bounds it
     */
    public static function of(Build $build, string $where, ?Input $given): ?array
    {
        $field = self::field($build, $where);
        $seen = $field?->plausible();
        if ($field !== null && (self::isCount($field) || self::isSolvedWith($build, $where))) {
            return null;
        }
        if ($given === null) {
            return $seen;
        }
        $value = $given->quantity();
        if ($value === null || ($field === null && ! self::isAir($where))) {
            return null;
        }
        if ($seen !== null && ($value->isBelow($seen[0]) || $value->exceeds($seen[1]))) {
            // Of no size anyone has seen: a slip of a unit is no matter of so many times.
            return null;
        }
        if ($value->unit->measures(Dimension::Temperature)) {
            $off = Quantity::of(self::KELVIN[self::rests($given)], 'K');

            return [$value->minus($off), $value->plus($off)];
        }
        $times = $given->evidence === Evidence::Listing ? self::LISTED : self::ASSUMED;
        [$low, $high] = [$value->over($times), $value->times($times)];

        // Of the two, where its family has seen nothing so small or so large.
        return $seen === null
            ? null
            : [
                Quantity::min($value, Quantity::max($low, $seen[0])),
                Quantity::max($value, Quantity::min($high, $seen[1])),
            ];
    }

    /** By how many times it may be off, either way; null where nothing bounds it. */
    public static function times(Build $build, Input $given): ?float
    {
        $bounds = self::of($build, $given->where, $given);
        $value = $given->quantity();
        if ($bounds === null || $value === null || ! $value->isPositive() || ! $bounds[0]->isPositive()) {
            return null;
        }
        $times = max($value->over($bounds[0])->in(''), $bounds[1]->over($value)->in(''));

        // A heater takes the square of what its rated voltage is off by.
        return $value->unit->measures(Dimension::Voltage) ? $times ** 2 : $times;
    }

    /** How many there are of something is looked at and counted. */
    private static function isCount(SpecField $field): bool
    {
        return $field->dimension === Dimension::Ratio &&
            $field->unit === '' &&
            ! in_array($field->key, self::SHARES, true);
    }

    /** Whether circuits are solved with it, too: what they give would not follow. */
    private static function isSolvedWith(Build $build, string $where): bool
    {
        $at = explode('/', $where);
        if (($at[2] ?? '') === 'ports') {
            return in_array($at[5] ?? '', PortSheet::SOLVED, true);
        }
        foreach ($build->part($at[1] ?? '')->ports ?? [] as $port) {
            foreach (PortSheet::SOLVED as $key) {
                if (($port->lends[$key] ?? null) === ($at[3] ?? '')) {
                    return true;
                }
            }
        }

        return false;
    }

    private static function rests(Input $given): string
    {
        return $given->evidence === Evidence::Listing ? 'listing' : 'assumed';
    }

    private static function isAir(string $where): bool
    {
        return $where === 'site/ambient' || preg_match('#^zones/[^/]+/temperature$#', $where) === 1;
    }

    private static function field(Build $build, string $where): ?SpecField
    {
        $at = explode('/', $where);

        return match (true) {
            $at[0] !== 'parts' => null,
            ($at[2] ?? '') === 'specs' => $build->part($at[1])?->family->field($at[3] ?? ''),
            ($at[2] ?? '') === 'ports' => PortSheet::field($at[5] ?? ''),
            default => null,
        };
    }
}
