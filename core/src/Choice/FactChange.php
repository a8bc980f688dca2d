<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/**
 * Whether a fact a decision rests on has changed for the worse. Whoever decided was content with what stood then: a
 * part that got cheaper or was measured stronger needs no second look.
 */
final class FactChange
{
    /** Of a size, what it may fall off by before it counts: a measured value never is the nominal one. */
    private const NOTICED = 0.01;

    /** From best to worst: what is not known is worse than what is known to be tight. */
    private const ORDER = [Verdict::Holds, Verdict::Tight, Verdict::Unproven, Verdict::Fails, Verdict::Danger];

    /**
     * @param  string  $fact  its name, as Facts gives it
     * @param  string|null  $was  null where there was none then
     * @param  string|null  $is  null where there is none any more
     * @param  Part|null  $part  whose facts they are
     */
    public static function isWorse(string $fact, ?string $was, ?string $is, ?Part $part): bool
    {
        if ($was === $is) {
            return false;
        }
        $before = Verdict::tryFrom(mb_strtolower($was ?? ''));
        $now = Verdict::tryFrom(mb_strtolower($is ?? ''));
        $field = $part === null ? null : self::field($part, $fact);

        return match (true) {
            $now !== null => self::order($now) > self::order($before ?? Verdict::Unproven),
            // What is not judged any more has nothing against it.
            $before !== null => false,
            $fact === 'Price' => self::costsMore($was, $is),
            $fact === 'Wait' => self::days($is) > self::days($was),
            str_starts_with($fact, 'Revision of ') => self::revision($was) !== self::revision($is),
            $field !== null => self::isLess($field, $was, $is),
            default => true,
        };
    }

    /** Whether an amount ("GBP 40.00", "none") is more than another; of two currencies nobody can tell. */
    public static function costsMore(?string $was, ?string $is): bool
    {
        [$before, $in] = self::amount($was);
        [$after, $of] = self::amount($is);

        return match (true) {
            $after === null => $before !== null,
            $before === null => false,
            default => $in !== $of || $after > $before,
        };
    }

    /** A check nobody had then was not known to hold either: it tells of something worse only when it fails. */
    private static function order(Verdict $verdict): int
    {
        return (int) array_search($verdict, self::ORDER, true);
    }

    /**
     * @return array{float|null, string}
     */
    private static function amount(?string $text): array
    {
        return preg_match('/^(\D+)[\s\x{a0}](-?[\d.]+)$/u', $text ?? '', $m) === 1 ? [(float) $m[2], $m[1]] : [null, ''];
    }

    private static function days(?string $text): float
    {
        return preg_match('/^(\d+) days$/', $text ?? '', $m) === 1 ? (float) $m[1] : INF;
    }

    /** Announced, ordered and in hand is the course of things; another revision is another part. */
    private static function revision(?string $text): string
    {
        return explode(', ', $text ?? '')[0];
    }

    private static function field(Part $part, string $label): ?SpecField
    {
        foreach ($part->family->sheet() as $field) {
            if ($field->label === $label) {
                return $field;
            }
        }

        return null;
    }

    /**
     * Of a line of which more or less is the better, whether it lost; of any other line the checks that read it tell,
     * and their verdicts are facts of their own.
     */
    private static function isLess(SpecField $field, ?string $was, ?string $is): bool
    {
        if ($field->better === null || $field->dimension === null) {
            return false;
        }
        try {
            [$before, $now] = array_map(
                static fn (?string $text): Quantity => Quantity::parse(
                    explode(' ± ', explode(', ', $text ?? '')[0])[0],
                    $field->dimension,
                    $field->unit,
                ),
                [$was, $is],
            );
        } catch (CannotReadQuantity) {
            return $is === null;
        }
        $off = self::NOTICED * abs($before->in($field->unit));
        $gained = $now->in($field->unit) - $before->in($field->unit);

        return $field->better === 'more' ? $gained < -$off : $gained > $off;
    }
}
