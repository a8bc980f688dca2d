<?php

declare(strict_types=1);

// The production set-up on this machine: fifty people for a minute, then application servers, workers and the database killed at
// random while edits are made; every confirmed one has to be there, each whole. Started by bin/magpie bench hosted.

use Tests\Support\Hosted;
use Tests\Support\HttpClient;

require __DIR__.'/../vendor/autoload.php';

$root = dirname(__DIR__);
$hosted = new Hosted($root, 1, 6, false);
register_shutdown_function($hosted->stop(...));
$memory = $hosted->memory();
putenv("MAGPIE_URL={$hosted->server->url()}");
passthru(escapeshellarg(PHP_BINARY).' '.escapeshellarg(__DIR__.'/load.php'));
printf("  memory of the application servers: %d MB before, %d MB after\n", $memory, $hosted->memory());

// Twenty people go on while application servers, workers and the database are killed under them.
mt_srand(20_261_128);
$client = new HttpClient($hosted->server->url());
$client->post('/api/session/demo');
$build = $client->get('/api/builds')[0]['builds'][0]['id'];
$others = proc_open([PHP_BINARY, __DIR__.'/load.php', '20', '45'], [['file', '/dev/null', 'r'], ['pipe', 'w'], ['file', '/dev/null', 'w']], $pipes);
$confirmed = [];
$refused = 0;
for ($kill = 0; $kill < 30; $kill++) {
    usleep(mt_rand(200_000, 1_200_000));
    if ($kill % 3 === 0) {
        $hosted->killWorker(0);
    } elseif ($kill % 3 === 1) {
        $hosted->killDatabase();
    } else {
        $hosted->kill('pool 0');
        $hosted->startPool(0);
    }
    for ($i = 0; $i < 3; $i++) {
        $ref = "k{$kill}-{$i}";
        // Two entries in one edit: both are there, or neither.
        $answer = $client->post("/api/builds/{$build}/edits", [
            'key' => sprintf('%08d-0000-4000-8000-%012d', $kill, $i),
            'label' => $ref,
            'changes' => [
                ['section' => 'needs', 'create' => ['ref' => $ref, 'role' => $ref, 'family' => 'fan']],
                ['section' => 'needs', 'create' => ['ref' => "{$ref}b", 'role' => "{$ref} b", 'family' => 'fan']],
            ],
        ]);
        if (isset($answer['revision'])) {
            $confirmed[] = $ref;
        } else {
            $refused++;
        }
    }
}
$said = is_resource($others) ? (string) stream_get_contents($pipes[1]) : '';
echo "  under the kills:\n", preg_replace('/^/m', '    ', trim($said)), "\n";
for ($tries = 0; $tries < 50 && ! isset($client->get("/api/builds/{$build}")['document']); $tries++) {
    usleep(200_000);
}
$held = array_flip(array_column($client->get("/api/builds/{$build}")['document']['needs'], 'ref'));
$lost = array_filter($confirmed, static fn (string $ref): bool => ! isset($held[$ref], $held["{$ref}b"]));
$half = array_filter(array_keys($held), static fn (string $ref): bool => preg_match('/^k\d+-\d+$/', $ref) === 1 && ! isset($held["{$ref}b"]));
printf(
    "  30 kills: %d edits confirmed, %d refused while something was down; %d confirmed ones lost, %d half\n",
    count($confirmed),
    $refused,
    count($lost),
    count($half),
);
exit($lost === [] && $half === [] ? 0 : 1);
