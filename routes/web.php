<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;

// Every address outside /api is a view of the interface.
Route::view('/{any?}', 'app')->where('any', '^(?!api/|build/).*');
