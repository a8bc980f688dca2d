<?php

declare(strict_types=1);

return [
    'driver' => 'file',
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
