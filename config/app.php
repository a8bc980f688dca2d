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
    // Names this server answers to; anything else in the Host header is refused.
    'hosts' => array_filter(array_unique([parse_url((string) env('APP_URL', 'http://127.0.0.1'), PHP_URL_HOST), '127.0.0.1', 'localhost', ...explode(',', (string) env('MAGPIE_HOSTS', ''))])),
    'demo' => (bool) env('MAGPIE_DEMO', false),
];
