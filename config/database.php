<?php

declare(strict_types=1);

return [
    'default' => 'mariadb',
    'connections' => [
        'mariadb' => [
            'driver' => 'mariadb',
            'host' => env('DB_HOST', '127.0.0.1'),
            'port' => env('DB_PORT'),
            'unix_socket' => env('DB_SOCKET', ''),
            'database' => env('DB_DATABASE', 'magpie'),
            'username' => env('DB_USERNAME', 'magpie'),
            'password' => env('DB_PASSWORD', ''),
            'charset' => 'utf8mb4',
            'collation' => 'utf8mb4_unicode_ci',
            'prefix' => '',
            'strict' => true,
            'engine' => 'InnoDB',
            // One round trip a statement instead of two; the types of what comes back are the same.
            'options' => [PDO::ATTR_EMULATE_PREPARES => true],
        ],
    ],
    // Where sessions and caches of several application servers meet.
    'redis' => [
        'client' => 'phpredis',
        'options' => ['prefix' => env('REDIS_PREFIX', 'magpie_')],
        'default' => [
            'host' => env('REDIS_HOST', '127.0.0.1'),
            'username' => env('REDIS_USERNAME'),
            'password' => env('REDIS_PASSWORD'),
            'port' => env('REDIS_PORT', '6379'),
            'database' => env('REDIS_DB', '0'),
        ],
        'cache' => [
            'host' => env('REDIS_HOST', '127.0.0.1'),
            'username' => env('REDIS_USERNAME'),
            'password' => env('REDIS_PASSWORD'),
            'port' => env('REDIS_PORT', '6379'),
            'database' => env('REDIS_CACHE_DB', '1'),
        ],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
