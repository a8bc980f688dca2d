<?php

declare(strict_types=1);

return [
    'stateful' => array_filter(explode(',', (string) env('SANCTUM_STATEFUL_DOMAINS', '127.0.0.1,localhost'))),
    'guard' => ['web'],
    'expiration' => 60 * 24 * 90,
];
