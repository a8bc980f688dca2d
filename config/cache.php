<?php

declare(strict_types=1);

return [
    'default' => env('CACHE_STORE', 'file'),
    'stores' => [
        'redis' => ['driver' => 'redis', 'connection' => 'cache', 'lock_connection' => 'default'],
        'file' => ['driver' => 'file', 'path' => env('MAGPIE_CACHE', storage_path('framework/cache/data')), 'lock_path' => env('MAGPIE_CACHE', storage_path('framework/cache/data'))],
    ],
    'prefix' => 'magpie_',
];
