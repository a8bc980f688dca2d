<?php

declare(strict_types=1);

namespace Magpie\Bin;

use DateTimeImmutable;

/** Which of many backups stay: all of the last two days, then one a day, a week, a month, thinning out with age. The newest always stays. */
final class Retention
{
    private const ALL_DAYS = 2;

    private const DAILY_DAYS = 14;

    private const WEEKLY_DAYS = 60;

    private const MONTHLY_DAYS = 400;

    /**
     * @param  array<string, DateTimeImmutable>  $made  when each was made, by its file
     * @return list<string> those that go
     */
    public static function gone(array $made, DateTimeImmutable $now): array
    {
        uasort($made, static fn (DateTimeImmutable $a, DateTimeImmutable $b): int => $b <=> $a);
        $kept = $gone = [];
        foreach ($made as $file => $at) {
            $days = ($now->getTimestamp() - $at->getTimestamp()) / 86_400;
            $slot = match (true) {
                $kept === [] || $days <= self::ALL_DAYS => $file,
                $days <= self::DAILY_DAYS => $at->format('Y-m-d'),
                $days <= self::WEEKLY_DAYS => $at->format('o-\WW'),
                $days <= self::MONTHLY_DAYS => $at->format('Y-m'),
                default => null,
            };
            // The newest of each day, week or month stands for it.
            if ($slot === null || isset($kept[$slot])) {
                $gone[] = $file;
            } else {
                $kept[$slot] = true;
            }
        }

        return $gone;
    }
}
