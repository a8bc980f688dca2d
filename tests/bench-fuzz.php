<?php

declare(strict_types=1);

// A hundred thousand damaged and made-up inputs for everything that reads what people bring. Started by bin/magpie bench fuzz.

use Magpie\Core\Tests\Fuzz\Readers;

require __DIR__.'/../vendor/autoload.php';

$count = 100_000;
$began = microtime(true);
$readers = new Readers((int) ($argv[1] ?? 1), dirname(__DIR__).'/demo/plover.json');
$wrong = $readers->run($count);
foreach ($readers->read as $name => $read) {
    printf("  %-11s %6d read, %6d refused in words\n", $name, $read, $readers->refused[$name] ?? 0);
}
printf(
    "  %d inputs, %.0f s, %.0f MB at most: %s\n",
    $count,
    microtime(true) - $began,
    memory_get_peak_usage() / 1e6,
    $wrong === [] ? 'nothing went wrong' : count($wrong).' went wrong',
);
echo implode("\n", $wrong), $wrong === [] ? '' : "\n";
exit($wrong === [] ? 0 : 1);
