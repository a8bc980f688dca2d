<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Http\LoggedPath;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Context;
use Symfony\Component\HttpFoundation\Response;

/** The number of a request, in every line of the log about it and in its answer: what somebody reports can be found. */
final class Traced
{
    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $given = (string) $request->headers->get('X-Request-Id');
        $id = preg_match('/^[A-Za-z0-9-]{8,64}$/', $given) === 1 ? $given : bin2hex(random_bytes(8));
        $path = LoggedPath::of($request->path());
        Context::add(['request' => $id, 'path' => $path]);
        $response = $next($request);
        $response->headers->set('X-Request-Id', $id);
        if ($path !== $request->path()) {
            $response->headers->set('X-Logged-Path', "/{$path}");
        }

        return $response;
    }
}
