<?php

declare(strict_types=1);

// The figures the project answers for. Started by bin/magpie bench, which serves the demo at MAGPIE_URL.

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Choice\Comparison;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Library\Entry;
use Magpie\Core\Motion\Views\MotorPicker;
use Magpie\Core\Remedies\RemedySearch;
use Tests\Support\HttpClient;
use Tests\Support\LargeBuild;

require __DIR__.'/../vendor/autoload.php';

/** Middle and least of so many runs, in milliseconds. */
$time = static function (callable $work, int $runs): array {
    $took = [];
    for ($i = 0; $i < $runs; $i++) {
        $start = hrtime(true);
        $work($i);
        $took[] = (hrtime(true) - $start) / 1e6;
    }
    sort($took);

    return [$took[intdiv($runs, 2)], $took[0]];
};

if (($argv[1] ?? '') === 'one') {
    // As the server runs it: what one answer holds is let go with it, and nothing looks for cycles meanwhile.
    gc_disable();
    $build = LargeBuild::of((int) $argv[2]);
    memory_reset_peak_usage();
    [$middle, $least] = $time(static fn () => Rules::inspector()->inspect($build), (int) $argv[2] > 1000 ? 1 : 9);
    printf(
        "%6d parts %5d leads   inspect %7.1f ms (least %.1f)   peak memory %5.1f MB\n",
        count($build->parts),
        count($build->leads),
        $middle,
        $least,
        memory_get_peak_usage() / 1048576,
    );
    exit();
}

foreach (['dunlin', 'linnet'] as $name) {
    $text = (string) file_get_contents(__DIR__."/../demo/{$name}.json");
    [$read] = $time(static fn () => BuildFile::read($text), 15);
    $build = BuildFile::read($text);
    [$middle, $least] = $time(static fn () => Rules::inspector()->inspect($build), 15);
    printf(
        "%-8s %3d parts %3d leads   read %5.1f ms   inspect %5.1f ms (least %.1f; budget 40)\n",
        $name,
        count($build->parts),
        count($build->leads),
        $read,
        $middle,
        $least,
    );
}
foreach ([50, 100, 200, 400, 800, 1600, 3200, 6400, 20_000] as $parts) {
    passthru(
        escapeshellarg(PHP_BINARY).
            ' -d opcache.enable_cli=1 -d memory_limit=3G '.
            escapeshellarg(__FILE__).
            " one {$parts}",
    );
}
$start = hrtime(true);
exec(
    escapeshellarg(__DIR__.'/../bin/magpie').
        ' check '.
        escapeshellarg(__DIR__.'/../demo/linnet.json').
        ' > /dev/null',
);
printf("bin/magpie check demo/linnet.json: %.0f ms from the shell\n", (hrtime(true) - $start) / 1e6);

// Fixes for one finding, each tried on the whole build with the starter library at hand; and every motor on one axis.
$starter = array_map(
    LibraryFile::read(...),
    json_decode((string) file_get_contents(__DIR__.'/../core/reference/starter-library.json'), true),
);
$linnet = Standing::of(
    Rules::inspector(),
    BuildFile::read((string) file_get_contents(__DIR__.'/../demo/linnet.json')),
);
$slowest = ['', 0.0];
foreach ($linnet->findings() as $finding) {
    if ($finding->verdict->rank() <= 2) {
        $start = hrtime(true);
        (new RemedySearch($linnet, $starter))->for($finding);
        $took = (hrtime(true) - $start) / 1e6;
        $slowest = $took > $slowest[1] ? [$finding->key(), $took] : $slowest;
    }
}
printf("fixes for one finding of Linnet, the slowest (%s): %.0f ms (budget 1500)\n", ...$slowest);
$motors = array_values(
    array_filter($starter, static fn (Entry $e): bool => $e->part->family->key() === 'stepper_motor'),
);
$shelf = array_map(static fn (int $i): Entry => $motors[$i % count($motors)], range(0, 299));
[$middle] = $time(static fn () => (new MotorPicker($linnet, $linnet->build()->axes['x']))->rank($shelf), 9);
printf("300 motors tried on an axis: %.0f ms (budget 500)\n", $middle);

$client = new HttpClient((string) getenv('MAGPIE_URL'));
$client->post('/api/session/demo');
$workshop = $client->get('/api/builds')[0]['id'];
$empty = [];
for ($i = 0; $i < 40; $i++) {
    $empty[] = $client->timed('GET', '/api/session') * 1e3;
}
sort($empty);
printf("an empty authenticated route: %.1f ms\n", $empty[20]);
foreach (
    [['the demo\'s Dunlin', null], ['150 parts', 150], ['400 parts', 400], ['1600 parts', 1600]] as [$label, $size]
) {
    $id =
        $size === null
            ? 1
            : $client->post('/api/builds', [
                'workshop' => $workshop,
                'file' => BuildFile::write(LargeBuild::of($size)),
            ])['id'];
    $opened = $client->get("/api/builds/{$id}");
    [$need, $revision] = [$opened['document']['needs'][3]['ref'], $opened['revision']];
    $key = static fn (int $i): string => sprintf('00000000-0000-4000-8000-%06d%06d', $id, $i);
    $body = static fn (int $i): string => (string) json_encode([
        'key' => $key($i),
        'label' => 'bench',
        'seen' => $revision + $i,
        'changes' => [
            ['section' => 'needs', 'ref' => $need, 'set' => [['path' => ['quantity'], 'to' => 1 + ($i % 3)]]],
        ],
    ]);
    $median = static function (callable $one): float {
        $took = [];
        for ($i = 0; $i < 40; $i++) {
            $took[] = $one($i) * 1e3;
        }
        $took = array_slice($took, 8);
        sort($took);

        return $took[16];
    };
    $edit = $median(static fn (int $i): float => $client->timed('POST', "/api/builds/{$id}/edits", $body($i)));
    $again = (string) json_encode(['seen' => $revision + 40] + json_decode($body(39), true));
    $stored = $median(static fn (int $i): float => $client->timed('POST', "/api/builds/{$id}/edits", $again));
    printf(
        "%s: an edit to its verdicts %.1f ms, the same route from store %.1f ms: %.2f times (budget 1.5)\n",
        $label,
        $edit,
        $stored,
        $edit / $stored,
    );
}

// Six candidates for one need of a build of 150 parts: six whole inspections, in one answer.
if (($argv[1] ?? '') !== 'one') {
    $build = LargeBuild::of(150);
    $data = BuildFile::data($build);
    foreach ($data['parts'] as $part) {
        if ($part['ref'] === 'psu0') {
            for ($i = 1; $i < 6; $i++) {
                $data['parts'][] =
                    [
                        'ref' => "other{$i}",
                        'specs' => ['rated_current' => ['value' => 10 + 4 * $i.' A', 'evidence' => 'datasheet']] +
                            $part['specs'],
                    ] + $part;
            }
        }
    }
    foreach ($data['needs'] as $i => $need) {
        $data['needs'][$i]['candidates'] =
            $need['ref'] === 'psu0' ? ['psu0', 'other1', 'other2', 'other3', 'other4', 'other5'] : $need['candidates'];
    }
    memory_reset_peak_usage();
    [$middle, $least] = $time(static function () use ($data): void {
        (new Comparison(Standing::of(Rules::inspector(), BuildFile::build($data)), 'psu0'))->toArray();
    }, 9);
    printf(
        "six candidates compared in 150 parts: %.0f ms (least %.0f; budget 400), peak memory %.1f MB (budget 64)\n",
        $middle,
        $least,
        memory_get_peak_usage() / 1048576,
    );
    $id = $client->post('/api/builds', ['workshop' => $workshop, 'file' => BuildFile::write(BuildFile::build($data))])[
        'id'
    ];
    printf(
        "the same over HTTP: %.0f ms\n",
        $median(static fn (int $i): float => $client->timed('GET', "/api/builds/{$id}/needs/psu0/comparison")),
    );
    $starter = json_decode((string) file_get_contents(__DIR__.'/../core/reference/starter-library.json'), true);
    for ($held = count($starter), $i = 0; $held < 5000; $held++, $i++) {
        $entry = $starter[$i % count($starter)];
        $client->post("/api/workshops/{$workshop}/library", [
            'entry' => ['part' => ['ref' => "bench-{$i}", 'name' => "{$entry['part']['name']}, lot {$i}"] + $entry['part']] +
                $entry,
        ]);
    }
    foreach (['', 'spindle 48 v', 'm5 16 cap lot 9', 'nothing carries this'] as $words) {
        printf(
            "library of 5,000, words \"%s\": %.0f ms (budget 100)\n",
            $words,
            $median(
                static fn (int $i): float => $client->timed(
                    'GET',
                    "/api/workshops/{$workshop}/library?words=".urlencode($words),
                ),
            ),
        );
    }
}
