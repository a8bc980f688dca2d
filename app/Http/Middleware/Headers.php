<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** What every answer tells a browser not to do; the same list goes with files the server hands out itself. */
final class Headers
{
    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $response = $next($request);
        /** @var array<string, string> $headers */
        $headers = config('headers');
        foreach ($headers as $name => $value) {
            $response->headers->set($name, $value);
        }
        $response->headers->remove('X-Powered-By');

        return $response;
    }
}
