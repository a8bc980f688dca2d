<?php

declare(strict_types=1);

namespace Magpie\Core\Firmware;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/** What a machine is set to, as its builder wrote it down, against what it should be. */
final class SettingValue
{
    /** The share of the larger by which two numbers are off and still the same. */
    public const SAME = 0.001;

    /** Words for one and the same state, as firmware and people write them. */
    private const YES = [
        'present',
        'enabled',
        'enable',
        'on',
        'yes',
        'y',
        'true',
        '1',
        'active',
        'set',
        'done',
        'tried',
        'tried by hand',
        'locked',
        'locked out',
        'undone',
    ];

    private const NO = [
        'absent',
        'disabled',
        'disable',
        'off',
        'no',
        'n',
        'false',
        '0',
        'inactive',
        'open',
        'none',
        'not present',
        'not set',
        'not done',
        'not tried',
        'unlocked',
        'not locked',
        'missing',
    ];

    /** What a setting may be a quantity of, tried in this order. */
    private const DIMENSIONS = [
        Dimension::Length,
        Dimension::Current,
        Dimension::Voltage,
        Dimension::Temperature,
        Dimension::Speed,
        Dimension::Acceleration,
        Dimension::RotationalSpeed,
        Dimension::Frequency,
        Dimension::Time,
        Dimension::Ratio,
    ];

    /**
     * Numbers agree within so much of the larger, in whatever unit they are written; one without a unit has that
     * of what is wanted. Words agree by what they mean.
     *
     * @param  bool  $atMost  less will do as well, and nothing above it
     */
    public static function suits(string $value, string $wants, bool $atMost = false, float $within = self::SAME): bool
    {
        [$value, $wants] = [self::plain($value), self::plain($wants)];
        $word = mb_strtolower($wants);
        foreach ([self::YES, self::NO] as $words) {
            if (in_array($word, $words, true) && ! is_numeric($word)) {
                return in_array(mb_strtolower($value), $words, true);
            }
        }
        $limit = self::quantity($wants);
        $set =
            $limit === null
                ? null
                : self::quantity($value, $limit) ?? self::quantity("{$value} {$limit->unit->symbol}", $limit);
        if ($limit === null || $set === null) {
            return mb_strtolower($value) === $word;
        }
        [$a, $b] = [$set->in($limit->unit->symbol), $limit->in($limit->unit->symbol)];
        $off = max(abs($a), abs($b));

        return $atMost ? $a <= $b + 1e-9 * $off : abs($a - $b) <= $within * $off;
    }

    private static function plain(string $text): string
    {
        return trim(str_replace("\u{a0}", ' ', $text));
    }

    /**
     * @param  Quantity|null  $like  one whose dimension it must have
     */
    private static function quantity(string $text, ?Quantity $like = null): ?Quantity
    {
        foreach (self::DIMENSIONS as $dimension) {
            if ($like === null || $like->unit->measures($dimension)) {
                try {
                    return Quantity::parse($text, $dimension);
                } catch (CannotReadQuantity) {
                    // Of another dimension, or no quantity at all.
                }
            }
        }

        return null;
    }
}
