<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

/**
 * What the checks and the words of the trade mean and how to find them out, from core/reference/terms.php: one text for
 * the interface and for docs/terms.md.
 *
 * @phpstan-type Term array{string, string}
 */
final class Terms
{
    /**
     * @return Term|null null of a check without one
     */
    public static function ofCheck(string $id): ?array
    {
        return self::table()['checks'][$id] ?? null;
    }

    /**
     * @return array<string, Term> by word
     */
    public static function ofTheTrade(): array
    {
        return self::table()['terms'];
    }

    /**
     * @return array{checks: array<string, Term>, terms: array<string, Term>}
     */
    private static function table(): array
    {
        /** @var array{checks: array<string, Term>, terms: array<string, Term>} $table */
        $table = Tables::named('terms');

        return $table;
    }
}
