<?php

declare(strict_types=1);

namespace App\Providers;

use App\Models\Build;
use App\Models\Import;
use App\Models\LibraryPart;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function boot(): void
    {
        Model::preventLazyLoading();
        Model::preventSilentlyDiscardingAttributes();
        RateLimiter::for(
            'sign-in',
            static fn (Request $request): Limit => Limit::perMinute(20)->by((string) $request->ip()),
        );
        // Whatever a route names is looked up inside the workshops of whoever asks: another's is not found.
        Route::bind(
            'build',
            static fn (string $id): Build => Build::query()
                ->whereIn('workshop_id', self::workshops())
                ->findOrFail((int) $id),
        );
        Route::bind(
            'other',
            static fn (string $id): Build => Build::query()
                ->whereIn('workshop_id', self::workshops())
                ->findOrFail((int) $id),
        );
        Route::bind(
            'workshop',
            static fn (string $id): Workshop => Workshop::query()
                ->whereIn('id', self::workshops())
                ->findOrFail((int) $id),
        );
        Route::bind(
            'item',
            static fn (string $id): LibraryPart => LibraryPart::query()
                ->whereIn('workshop_id', self::workshops())
                ->findOrFail((int) $id),
        );
        Route::bind(
            'import',
            static fn (string $key): Import => Import::query()
                ->where('key', $key)
                ->whereIn('build_id', Build::query()->select('id')->whereIn('workshop_id', self::workshops()))
                ->firstOrFail(),
        );
    }

    /**
     * @return list<int>
     */
    private static function workshops(): array
    {
        $user = auth()->user();

        return $user instanceof User
            ? array_values(
                $user->workshops()->pluck('workshops.id')->map(static fn (mixed $id): int => (int) $id)->all(),
            )
            : [];
    }
}
