<?php

declare(strict_types=1);

// For PHP's built-in server: files that exist are served with a long life when their names carry a hash, all else goes to the app.
$path = parse_url($_SERVER['REQUEST_URI'] ?? '/', PHP_URL_PATH);
$file = __DIR__.(is_string($path) ? rawurldecode($path) : '/');
if (is_file($file) && ! str_ends_with($file, '.php') && str_starts_with((string) realpath($file), __DIR__.DIRECTORY_SEPARATOR)) {
    $types = ['js' => 'text/javascript', 'css' => 'text/css', 'woff2' => 'font/woff2', 'svg' => 'image/svg+xml', 'json' => 'application/json', 'png' => 'image/png', 'csv' => 'text/csv', 'webmanifest' => 'application/manifest+json'];
    header('Content-Type: '.($types[pathinfo($file, PATHINFO_EXTENSION)] ?? 'application/octet-stream'));
    foreach (require __DIR__.'/../config/headers.php' as $name => $value) {
        header("{$name}: {$value}");
    }
    if (str_starts_with((string) $path, '/build/assets/')) {
        header('Cache-Control: public, max-age=31536000, immutable');
    }
    if (str_contains($_SERVER['HTTP_ACCEPT_ENCODING'] ?? '', 'gzip') && is_file($file.'.gz')) {
        header('Content-Encoding: gzip');
        header('Vary: Accept-Encoding');
        $file .= '.gz';
    }
    header('Content-Length: '.filesize($file));
    readfile($file);

    return true;
}

require __DIR__.'/index.php';
