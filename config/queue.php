<?php

declare(strict_types=1);

// What is worked in the background. Longer than a worker lets any of it run: before that nobody else takes it up.
$again = 1200;

return [
    'default' => env('QUEUE_CONNECTION', 'database'),
    'connections' => [
        'sync' => ['driver' => 'sync'],
        'database' => ['driver' => 'database', 'table' => 'jobs', 'queue' => 'default', 'retry_after' => $again, 'after_commit' => true],
        'redis' => ['driver' => 'redis', 'connection' => 'default', 'queue' => 'default', 'retry_after' => $again, 'block_for' => null, 'after_commit' => true],
    ],
    // What came of each is told to whoever asked for it, and kept nowhere else.
    'failed' => ['driver' => 'null'],
];
