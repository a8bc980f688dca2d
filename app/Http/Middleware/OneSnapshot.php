<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\Response;

/** Whatever one request reads, it reads of one moment: nobody's edit falls between the build and its parts. */
final class OneSnapshot
{
    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        return $request->isMethodSafe() ? DB::transaction(static fn (): Response => $next($request)) : $next($request);
    }
}
