<?php

declare(strict_types=1);

return [
    'defaults' => ['guard' => 'web', 'passwords' => 'users'],
    // Whoever asks to stay signed in does so for thirty days, in minutes.
    'guards' => ['web' => ['driver' => 'session', 'provider' => 'users', 'remember' => 60 * 24 * 30]],
    'passwords' => [
        'users' => ['provider' => 'users', 'table' => 'password_reset_tokens', 'expire' => 60, 'throttle' => 60],
    ],
    'providers' => ['users' => ['driver' => 'eloquent', 'model' => App\Models\User::class]],
];
