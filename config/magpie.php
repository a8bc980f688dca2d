<?php

declare(strict_types=1);

return [
    // The socket of the resident inspector; without one, whoever asks judges by itself.
    'inspector' => env('MAGPIE_INSPECTOR'),

    // One in so many of its answers is held against a full inspection afterwards; 0 for none.
    'check' => (int) env('MAGPIE_INSPECTOR_CHECK', 100),
];
