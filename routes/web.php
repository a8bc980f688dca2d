<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;

// What keeps the bench on a device speaks for every address, so it is served from the top; it is asked for afresh each time.
Route::get('worker.js', static fn () => response()->file(public_path('build/worker.js'), [
    'Content-Type' => 'text/javascript',
    'Cache-Control' => 'no-cache',
]));

// Every address outside /api is a view of the interface.
Route::view('/{any?}', 'app')->where('any', '^(?!api/|build/).*');
