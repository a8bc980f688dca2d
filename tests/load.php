<?php

declare(strict_types=1);

// Fifty people at once for a minute, each reading, editing and thinking for two seconds in between. Started by
// bin/magpie bench load, which serves the demo at MAGPIE_URL; it speaks to that address on loopback alone.

use Tests\Support\HttpClient;

require __DIR__.'/../vendor/autoload.php';

$url = (string) getenv('MAGPIE_URL');
$people = (int) ($argv[1] ?? 50);
$seconds = (int) ($argv[2] ?? 60);
$client = new HttpClient($url);
$client->post('/api/session/demo');
$list = $client->get('/api/builds')[0];
$copies = [];
foreach (['linnet', 'dunlin'] as $name) {
    for ($i = 0; $i < 4; $i++) {
        // What is down for a moment is asked again.
        do {
            $made = $client->post('/api/builds', [
                'workshop' => $list['id'],
                'file' => (string) file_get_contents(__DIR__."/../demo/{$name}.json"),
            ]);
        } while (! isset($made['id']));
        $copies[] = $made['id'];
    }
}
mt_srand(20_261_127);
$plan = static function (int $person, int $turn) use ($copies): array {
    $build = $copies[$person % count($copies)];

    return match (mt_rand(0, 9)) {
        0 => ['list', 'GET', '/api/builds', null],
        1, 2 => ['open', 'GET', "/api/builds/{$build}", null],
        3, 4 => ['verdicts', 'GET', "/api/builds/{$build}/overview", null],
        5 => ['power', 'GET', "/api/builds/{$build}/power", null],
        6 => ['look', 'GET', "/api/builds/{$build}/revision", null],
        default => [
            'edit',
            'POST',
            "/api/builds/{$build}/edits",
            [
                'key' => sprintf('%08d-0000-4000-8000-%012d', $person, $turn),
                'label' => 'load',
                'changes' => [
                    [
                        'section' => 'needs',
                        'create' => [
                            'ref' => "l{$person}-{$turn}",
                            'role' => "Load {$person}.{$turn}",
                            'family' => 'fan',
                        ],
                    ],
                ],
            ],
        ],
    };
};
$multi = curl_multi_init();
$due = array_map(static fn (): float => microtime(true) + mt_rand(0, 2000) / 1000, range(0, $people - 1));
$busy = $took = $errors = $confirmed = [];
$turn = array_fill(0, $people, 0);
$until = microtime(true) + $seconds;
while (microtime(true) < $until || $busy !== []) {
    foreach ($due as $person => $at) {
        if ($at <= microtime(true) && microtime(true) < $until && ! isset($busy[$person])) {
            $request = $plan($person, $turn[$person]++);
            $handle = $client->prepare($request[1], $request[2], $request[3]);
            $busy[$person] = [$handle, $request, microtime(true)];
            curl_multi_add_handle($multi, $handle);
        }
    }
    curl_multi_exec($multi, $running);
    while ($done = curl_multi_info_read($multi)) {
        foreach ($busy as $person => [$handle, $request, $began]) {
            if ($handle === $done['handle']) {
                $took[$request[0]][] = (microtime(true) - $began) * 1e3;
                $status = (int) curl_getinfo($handle, CURLINFO_RESPONSE_CODE);
                $status === 200 ? null : ($errors[$status] = ($errors[$status] ?? 0) + 1);
                if ($request[0] === 'edit' && $status === 200) {
                    $confirmed[$request[2]][] = $request[3]['changes'][0]['create']['ref'];
                }
                curl_multi_remove_handle($multi, $handle);
                unset($busy[$person]);
                $due[$person] = microtime(true) + 2.0;
            }
        }
    }
    curl_multi_select($multi, 0.01);
}
$all = array_merge(...array_values($took));
$at = static function (array $times, float $share): float {
    sort($times);

    return $times[min(count($times) - 1, (int) floor($share * count($times)))];
};
printf(
    "%d people, %d s: %d requests, %.1f a second; p50 %.0f ms, p95 %.0f ms, most %.0f ms; errors %s\n",
    $people,
    $seconds,
    count($all),
    count($all) / $seconds,
    $at($all, 0.5),
    $at($all, 0.95),
    max($all),
    $errors === [] ? 'none' : json_encode($errors),
);
foreach ($took as $what => $times) {
    printf("  %-9s %4d   p50 %5.0f ms   p95 %5.0f ms\n", $what, count($times), $at($times, 0.5), $at($times, 0.95));
}
$lost = 0;
foreach ($confirmed as $path => $refs) {
    $held = array_column($client->get((string) preg_replace('#/edits$#', '', $path))['document']['needs'], 'ref');
    $lost += count(array_diff($refs, $held));
}
printf("  %d edits confirmed, %d of them lost\n", array_sum(array_map(count(...), $confirmed)), $lost);
// What one edit costs with nobody else there, and what the route costs that does nothing.
$alone = static function (callable $one): float {
    $times = array_map($one, range(0, 24));
    sort($times);

    return $times[12] * 1e3;
};
$body = static fn (int $i): string => (string) json_encode([
    'key' => sprintf('%08d-0000-4000-8000-%012d', 999, $i),
    'label' => 'alone',
    'changes' => [['section' => 'needs', 'create' => ['ref' => "alone{$i}", 'role' => 'Alone', 'family' => 'fan']]],
]);
printf(
    "  alone: an edit %.0f ms, its build opened %.0f ms, the revision asked %.0f ms\n",
    $alone(static fn (int $i): float => $client->timed('POST', "/api/builds/{$copies[0]}/edits", $body($i))),
    $alone(static fn (): float => $client->timed('GET', "/api/builds/{$copies[0]}")),
    $alone(static fn (): float => $client->timed('GET', "/api/builds/{$copies[0]}/revision")),
);
