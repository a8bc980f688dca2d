<?php

declare(strict_types=1);

namespace App\Providers;

use App\Accounts\Access;
use App\Models\Build;
use App\Models\Errand;
use App\Models\Import;
use App\Models\Invitation;
use App\Models\LibraryPart;
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
        // Whatever a route names is looked up among what whoever asks may see: another's is not found.
        Route::bind('build', static fn (string $id): Build => Access::builds()->findOrFail((int) $id));
        Route::bind('other', static fn (string $id): Build => Access::builds()->findOrFail((int) $id));
        Route::bind('workshop', static fn (string $id): Workshop => Access::workshops()->findOrFail((int) $id));
        Route::bind(
            'item',
            static fn (string $id): LibraryPart => LibraryPart::query()
                ->whereIn('workshop_id', Access::workshops()->select('id'))
                ->findOrFail((int) $id),
        );
        Route::bind(
            'invitation',
            static fn (string $id): Invitation => Invitation::query()
                ->whereIn('workshop_id', Access::workshops()->select('id'))
                ->findOrFail((int) $id),
        );
        Route::bind(
            'errand',
            static fn (string $key): Errand => Errand::mine()
                ->where('key', $key)
                ->where('build_id', (int) request()->route()?->originalParameter('build'))
                ->firstOrFail(),
        );
        Route::bind(
            'import',
            static fn (string $key): Import => Import::query()
                ->where('key', $key)
                ->whereIn('build_id', Access::builds()->select('id'))
                ->firstOrFail(),
        );
    }
}
