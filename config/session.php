<?php

declare(strict_types=1);

return [
    // Files on one machine; redis or database where several serve.
    'driver' => env('SESSION_DRIVER', 'file'),
    'connection' => env('SESSION_CONNECTION'),
    'store' => env('SESSION_STORE'),
    'secure' => (bool) env('SESSION_SECURE_COOKIE', false),
    // Half a day of doing nothing, or closing the browser, ends a session of somebody who did not ask to stay signed in.
    'lifetime' => 60 * 12,
    'expire_on_close' => true,
    'files' => env('MAGPIE_SESSIONS', storage_path('framework/sessions')),
    'lottery' => [1, 200],
    'cookie' => 'magpie_session',
    'path' => '/',
    'http_only' => true,
    'same_site' => 'strict',
];
