<?php

declare(strict_types=1);

// Run once when the web server starts: the project's own classes and those it computes with are kept linked in shared memory.

$root = dirname(__DIR__);
require "{$root}/vendor/autoload.php";
/** @var array<string, string> $classes */
$classes = require "{$root}/vendor/composer/autoload_classmap.php";
foreach ($classes as $class => $file) {
    if (preg_match('#/(core/src|app|vendor/brick/math/src)/#', $file) === 1) {
        class_exists($class) || interface_exists($class) || trait_exists($class) || enum_exists($class);
    }
}
