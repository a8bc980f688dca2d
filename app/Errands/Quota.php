<?php

declare(strict_types=1);

namespace App\Errands;

use App\Models\Build;
use App\Models\Errand;

/** How much visitors of one build may have done for them in a day, all of them together: it is the builder's machine they use. */
final class Quota
{
    public const NUMBER = 30;

    public const BYTES = 200 * 1024 * 1024;

    public const SECONDS = 900;

    /** Why a visitor's errand is not taken; null where it is. */
    public static function refusal(Build $build, int $bytes): ?string
    {
        $day = Errand::query()
            ->where('build_id', $build->id)
            ->where('asker', 'like', 'link:%')
            ->where('created_at', '>', now()->subDay());

        return match (true) {
            $day->count() >= self::NUMBER => self::says(self::NUMBER.' jobs'),
            (int) $day->sum('bytes') + $bytes > self::BYTES => self::says('200 MB of files'),
            (int) $day->sum('seconds') > self::SECONDS => self::says('15 minutes of work'),
            default => null,
        };
    }

    private static function says(string $most): string
    {
        return "The visitors of this build have used what they get in a day: {$most}. Try again tomorrow, or ask to be invited.";
    }
}
