<?php

declare(strict_types=1);

use Monolog\Formatter\JsonFormatter;
use Monolog\Handler\StreamHandler;

return [
    'default' => env('LOG_CHANNEL', 'single'),
    'channels' => [
        'single' => ['driver' => 'single', 'path' => env('MAGPIE_LOG', storage_path('logs/laravel.log')), 'level' => 'debug', 'permission' => 0640],
        // A line of JSON an entry, with the number of the request, for programs that read logs.
        'structured' => [
            'driver' => 'monolog',
            'handler' => StreamHandler::class,
            'with' => ['stream' => env('MAGPIE_LOG', storage_path('logs/laravel.log')), 'filePermission' => 0640],
            'formatter' => JsonFormatter::class,
            'level' => 'info',
        ],
        'emergency' => ['path' => storage_path('logs/laravel.log')],
    ],
];
