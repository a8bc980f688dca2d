<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Accounts\Access;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** What is about money alone is shown by a link only where whoever made it said so. */
final class Priced
{
    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        abort_if(
            Access::visitor()?->money === false,
            403,
            'The link you came by shows the machine without prices. Whoever sent it can make one with them.',
        );

        return $next($request);
    }
}
