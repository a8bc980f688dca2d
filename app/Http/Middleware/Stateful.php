<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Laravel\Sanctum\Http\Middleware\EnsureFrontendRequestsAreStateful;

/** The interface's own requests carry its session; its cookies never travel with a request that began elsewhere. */
final class Stateful extends EnsureFrontendRequestsAreStateful
{
    protected function configureSecureCookieSessions(): void
    {
        config(['session.http_only' => true, 'session.same_site' => 'strict']);
    }
}
