<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Accounts\Access;
use App\Accounts\Devices;
use App\Models\ShareLink;
use App\Models\User;
use Closure;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;

/**
 * Lets in people by their session or token, and visitors by the link of one build. The invented people of the demo, whose password
 * everybody knows, come in only where the demo is served.
 */
final class Entered
{
    /**
     * @param  Closure(Request): Response  $next
     *
     * @throws AuthenticationException
     */
    public function handle(Request $request, Closure $next): Response
    {
        Auth::shouldUse('sanctum');
        $user = $request->user();
        if ($user instanceof User) {
            $byToken = Access::token() !== null;
            if (! $user->mayEnter() || (! $byToken && Devices::here($request, $user) === null)) {
                if (! $byToken) {
                    Devices::forget($request);
                }
                throw new AuthenticationException;
            }

            return $next($request);
        }
        $link = $request->hasSession() ? ShareLink::query()->find($request->session()->get('visitor')) : null;
        if (! ($link instanceof ShareLink) || ! $link->isOpen()) {
            throw new AuthenticationException;
        }
        $request->attributes->set(Access::VISITOR, $link);

        return $next($request);
    }
}
