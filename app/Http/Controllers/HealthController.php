<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Errand;
use App\Resident\Client;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Throwable;

/** For whoever watches the server: whether each thing it stands on does its work. Says nothing about what is in it. */
final class HealthController
{
    /** A build waiting for its verdicts longer than this has nobody who judges, an errand nobody who does it; in seconds. */
    private const LONG = 900;

    /** Less free space than this, and the next picture or edit may not be kept, in bytes. */
    private const ROOM = 500 * 1024 * 1024;

    public function show(): JsonResponse
    {
        $found = [
            'database' => self::check(static fn (): bool => DB::scalar('SELECT 1') !== null),
            'tables' => self::check(self::isMigrated(...)),
            'files' => self::check(static function (): bool {
                $name = 'health-'.bin2hex(random_bytes(6));
                Storage::put($name, 'x');
                $right = Storage::get($name) === 'x';
                Storage::delete($name);

                return $right;
            }),
            'room' => self::check(static fn (): bool => disk_free_space(storage_path()) > self::ROOM),
            'cache' => self::check(static function (): bool {
                $word = bin2hex(random_bytes(6));
                Cache::put('health', $word, 60);

                return is_string(Cache::get('health'));
            }),
            'background' => self::check(
                static fn (): bool => DB::table('judgings')
                    ->whereIn('state', ['queued', 'running'])
                    ->where('at', '<', now()->subSeconds(self::LONG))
                    ->doesntExist() && Errand::query()
                    ->where('state', 'waiting')
                    ->where('beat_at', '<', now()->subSeconds(self::LONG))
                    ->doesntExist(),
            ),
            'inspector' => self::check(Client::answers(...)),
            // What was made tomorrow says that the clock was set back, or stands wrong.
            'clock' => self::check(static function (): bool {
                $last = DB::table('edits')->max('made_at');

                return ! is_string($last) || Carbon::parse($last)->isBefore(now()->addMinutes(5));
            }),
        ];
        $isWell = ! in_array(false, $found, true);

        return new JsonResponse(
            ['well' => $isWell, 'checks' => array_map(static fn (bool $ok): string => $ok ? 'works' : 'fails', $found)],
            $isWell ? 200 : 503,
            ['Cache-Control' => 'no-store'],
        );
    }

    /**
     * @param  callable(): bool  $look
     */
    private static function check(callable $look): bool
    {
        try {
            return $look();
        } catch (Throwable) {
            return false;
        }
    }

    private static function isMigrated(): bool
    {
        $known = array_map(
            static fn (string $f): string => basename($f, '.php'),
            glob(database_path('migrations/*.php')) ?: [],
        );

        return DB::table('migrations')->whereIn('migration', $known)->count() === count($known);
    }
}
