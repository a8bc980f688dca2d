<?php

declare(strict_types=1);

// How long a library of fifty thousand parts takes to be searched. Started by bin/magpie bench library, which serves the demo
// at MAGPIE_URL.

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Support\Facades\DB;
use Tests\Support\HttpClient;

require __DIR__.'/../vendor/autoload.php';

const PARTS = 50_000;

/** @var Application $app */
$app = require dirname(__DIR__).'/bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
$client = new HttpClient((string) getenv('MAGPIE_URL'));
$client->post('/api/session/demo');
$workshop = $client->get('/api/builds')[0]['id'];

// The workshop's own parts over and over, each lot with its figures, under a name of its own.
$own = (int) DB::table('library_parts')->where('workshop_id', $workshop)->count();
$top = (int) DB::table('library_parts')->max('id');
for ($lot = 1; $own * ($lot + 1) < PARTS; $lot++) {
    $by = $top * $lot;
    DB::statement(
        'INSERT INTO library_parts (id, workshop_id, ref, family, name, words, example, version, entry) '.
            "SELECT id + {$by}, workshop_id, CONCAT(LEFT(ref, 50), '-{$lot}'), family, CONCAT(LEFT(name, 180), ', lot {$lot}'), ".
            "CONCAT(words, ' lot {$lot}'), example, version, entry FROM library_parts WHERE workshop_id = ? AND id <= ?",
        [$workshop, $top],
    );
    $columns = array_diff(DB::getSchemaBuilder()->getColumnListing('library_figures'), ['id', 'library_part_id']);
    $list = implode(', ', array_map(static fn (string $c): string => "`{$c}`", $columns));
    DB::statement(
        "INSERT INTO library_figures (library_part_id, {$list}) SELECT library_part_id + {$by}, {$list} FROM library_figures ".
            'WHERE library_part_id <= ?',
        [$top],
    );
}
printf("%d parts\n", DB::table('library_parts')->where('workshop_id', $workshop)->count());
foreach (['', 'spindle 48 v', 'm5 16 cap lot 9', 'motor', 'lot', 'nothing carries this', '24 V 10 A'] as $words) {
    $took = [];
    for ($i = 0; $i < 9; $i++) {
        $took[] = 1000 * $client->timed('GET', "/api/workshops/{$workshop}/library?words=".urlencode($words));
    }
    sort($took);
    printf("words \"%s\": %.0f ms in the middle, %.0f at the most (budget 150)\n", $words, $took[4], $took[8]);
}
