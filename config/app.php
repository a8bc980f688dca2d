<?php

declare(strict_types=1);

return [
    'name' => 'Frugal Magpie',
    'env' => env('APP_ENV', 'production'),
    'debug' => (bool) env('APP_DEBUG', false),
    'url' => env('APP_URL', 'http://127.0.0.1'),
    'key' => env('APP_KEY'),
    'timezone' => 'UTC',
    'locale' => 'en',
    'demo' => (bool) env('MAGPIE_DEMO', false),
];
