<?php

declare(strict_types=1);

return [
    'driver' => 'file',
    'lifetime' => 60 * 24 * 14,
    'expire_on_close' => false,
    'files' => env('MAGPIE_SESSIONS', storage_path('framework/sessions')),
    'lottery' => [1, 200],
    'cookie' => 'magpie_session',
    'path' => '/',
    'http_only' => true,
    'same_site' => 'strict',
];
