<?php

declare(strict_types=1);

use App\Builds\CannotEdit;
use App\Builds\Conflict;
use App\Http\Middleware\BodySize;
use App\Http\Middleware\Compressed;
use App\Http\Middleware\Entered;
use App\Http\Middleware\Headers;
use App\Http\Middleware\May;
use App\Http\Middleware\OneSnapshot;
use App\Http\Middleware\Priced;
use App\Http\Middleware\Stateful;
use App\Http\Middleware\Traced;
use App\Http\Problem;
use App\Imports\CannotImport;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Request;
use Illuminate\Routing\Middleware\SubstituteBindings;
use Magpie\Core\Format\CannotReadBuildFile;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        web: __DIR__.'/../routes/web.php',
        api: __DIR__.'/../routes/api.php',
        commands: __DIR__.'/../routes/console.php',
    )
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->prependToGroup('api', Stateful::class);
        $middleware->prepend(Traced::class);
        $middleware->append([Compressed::class, Headers::class, BodySize::class]);
        $middleware->prependToGroup('api', OneSnapshot::class);
        $middleware->alias(['entered' => Entered::class, 'may' => May::class, 'priced' => Priced::class]);
        // Whoever asks is known before what a route names is looked up among what they may see.
        $middleware->prependToPriorityList(SubstituteBindings::class, Entered::class);
        $middleware->trustHosts(at: static fn (): array => array_map(static fn (string $h): string => '^'.preg_quote($h).'$', (array) config('app.hosts')), subdomains: false);
        $middleware->redirectGuestsTo(fn (Request $request) => $request->is('api/*') ? null : '/sign-in');
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        $exceptions->dontReport([CannotEdit::class, CannotImport::class, CannotReadBuildFile::class, Conflict::class]);
        $exceptions->shouldRenderJsonWhen(fn (Request $request): bool => $request->is('api/*'));
        $exceptions->render(fn (Throwable $e, Request $request) => $request->is('api/*') ? Problem::from($e) : null);
    })
    ->create();

// Each instance (the builder's own, the tests') keeps its settings in its own folder.
$app->useEnvironmentPath(dirname(__DIR__).'/.data/'.(getenv('MAGPIE_INSTANCE') ?: 'main'));

return $app;
