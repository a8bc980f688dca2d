<?php

declare(strict_types=1);

// Takes the pictures of docs/screenshots from a freshly loaded demo: shots.php URL [folder] [name …]
// Views that belong together share a file, one below the other, so that every view has a picture and the files stay
// few.

use Tests\Support\BrokenBuild;
use Tests\Support\Browser;
use Tests\Support\HttpClient;

require __DIR__.'/../vendor/autoload.php';

[, $url, $folder] = $argv + [2 => dirname(__DIR__).'/docs/screenshots'];
$only = array_slice($argv, 3);
$together = [
    'builds' => ['builds', 'people', 'account', 'repair'],
    'brief' => ['brief', 'variants'],
    'parts' => ['parts', 'import'],
    'decisions' => ['decisions', 'measure', 'library'],
    'harness' => ['harness', 'leads'],
    'ports' => ['power', 'settings', 'ports', 'stops'],
    'stack-up' => ['motion', 'stack-up', 'joints', 'heat', 'place'],
    'picture' => ['picture', 'space'],
    'bench' => ['bench', 'derived', 'ahead', 'way-back', 'hours'],
    'faults' => ['faults', 'open', 'documents', 'bags'],
    'power-up' => ['ladder', 'readings', 'straight'],
    'run' => ['tune', 'jobs', 'upkeep', 'book'],
    'split' => ['split', 'orders', 'prints', 'dates'],
    'money' => ['money', 'basket', 'arrivals'],
];
$browser = new Browser($url);
$browser->open('/sign-in');
$browser->theme('light');
$browser->open('/sign-in');
$browser->sees('Enter the demo workshop');
/** name => [path, width, height, theme, what to wait for, then press] */
$shots = [
    'builds' => ['/', 1280, 800, 'light', 'Linnet', null],
    'people' => ['/workshops/1/people', 1280, 800, 'light', 'Invite somebody', null],
    'account' => ['/account', 1280, 800, 'light', 'Where you are signed in', null],
    'brief' => ['/builds/2/scope/brief', 1280, 800, 'light', 'Smallest envelope', null],
    'routes' => ['/builds/2/scope/routes', 1280, 800, 'light', 'At the door', null],
    'variants' => ['/builds/2/scope/variants', 1280, 800, 'light', 'What another size means', null],
    'compare' => ['/builds/2/choose/compare/motor-x', 1280, 800, 'light', 'Holding torque', null],
    'decisions' => ['/builds/2/choose/decisions', 1280, 800, 'light', 'open again', 'Which motor for X?'],
    'measure' => ['/builds/2/choose/measure', 1280, 800, 'light', 'clamp meter', null],
    'library' => ['/builds/2/choose/library', 1280, 800, 'light', '472 parts', null],
    'parts' => ['/builds/1/choose/parts', 1280, 800, 'light', 'Controller board', '24 V controller board, 5 drivers'],
    'import' => ['/builds/2/choose/import', 1280, 800, 'light', 'Choose a CSV file', 'import'],
    'fit-working' => ['/builds/1/prove/fit?verdict=danger', 1280, 800, 'light', 'E02 Contact load', 'E02 Contact load'],
    'wiring' => ['/builds/1/prove/wiring', 1280, 800, 'light', 'Bed heater', null],
    'leads' => ['/builds/1/prove/leads', 1280, 800, 'light', 'W12', 'W4'],
    'harness' => ['/builds/2/prove/harness', 1280, 800, 'light', 'leads made', null],
    'ports' => ['/builds/1/prove/ports', 1280, 800, 'light', 'heater0', null],
    'stops' => ['/builds/2/prove/stops', 1280, 800, 'light', 'Main stop pressed', null],
    'settings' => ['/builds/1/prove/settings', 1280, 800, 'light', 'Jumper sheet', null],
    'power' => ['/builds/2/prove/power', 1280, 800, 'light', 'Energy and running cost', null],
    'motion' => ['/builds/2/prove/motion', 1280, 800, 'light', 'Limited by', null],
    'stack-up' => ['/builds/2/prove/stack-up', 1280, 800, 'light', 'mm left', null],
    'joints' => ['/builds/2/prove/joints', 1280, 800, 'light', 'Screws by the bag', null],
    'heat' => ['/builds/1/prove/heat', 1280, 800, 'light', 'Printed parts', null],
    'picture' => ['/builds/2/prove/picture', 1280, 800, 'light', 'No place yet', null],
    'space' => ['/builds/2/prove/picture?look=space&place=gantry-beam', 1280, 800, 'light', 'back to the list', null],
    'place' => ['/builds/2/prove/place', 1280, 800, 'light', 'Through the door', null],
    'basket' => ['/builds/2/buy/basket', 1280, 800, 'light', 'Where to buy it', null],
    'split' => ['/builds/2/buy/split', 1280, 800, 'light', 'nothing is faster', null],
    'arrivals' => ['/builds/1/buy/arrivals', 1280, 800, 'light', 'not looked at yet', 'Bed heater'],
    'dates' => ['/builds/1/buy/dates', 1280, 800, 'light', 'In nine of ten by', null],
    'prints' => ['/builds/1/buy/prints', 1280, 800, 'light', 'What came off', null],
    'orders' => ['/builds/1/buy/orders', 1280, 800, 'light', 'Ferry Lane 4471', null],
    'money' => ['/builds/1/buy/money', 1280, 800, 'light', 'By supplier', null],
    'bench' => ['/builds/1/build/bench', 1280, 800, 'light', 'To measure', null],
    'step-phone' => ['/builds/1/build/bench/d6', 390, 844, 'light', 'Measure', null],
    'derived' => ['/builds/2/build/derived', 1280, 800, 'light', 'Measure the earth bond', null],
    'open' => ['/builds/1/build/open', 1280, 800, 'light', 'Terminal cover', null],
    'way-back' => ['/builds/1/build/way-back/bed', 1280, 800, 'light', 'Undo W4', null],
    'faults' => ['/builds/3/build/faults', 1280, 800, 'light', 'How bad', 'Y end switch reads open at times'],
    'ahead' => ['/builds/3/build/ahead', 1280, 800, 'light', 'Look ahead', 'all'],
    'documents' => ['/builds/1/build/documents', 1280, 800, 'light', 'nobody has said which holds', null],
    'bags' => ['/builds/1/build/bags', 1280, 800, 'light', 'Tin of spares', null],
    'hours' => ['/builds/3/build/hours', 1280, 800, 'light', 'Sittings', null],
    'ladder' => ['/builds/1/run/ladder', 1280, 800, 'light', 'out of band', null],
    'readings' => ['/builds/1/run/readings', 1280, 800, 'light', 'simulated multimeter', null],
    'straight' => ['/builds/3/run/straight', 1280, 800, 'light', 'Measured so far', 'A rail or edge along its length'],
    'tune' => ['/builds/3/run/tune', 1280, 800, 'light', 'Pluck the free span', 'tune'],
    'jobs' => ['/builds/2/run/jobs', 1280, 800, 'light', 'Before the start', 'job'],
    'upkeep' => ['/builds/3/run/upkeep', 1280, 800, 'light', 'Reference pieces', null],
    'book' => ['/builds/3/run/book', 1280, 800, 'light', 'Signed off', null],
    // Last, since it adds a build that the list would show.
    'repair' => ['/builds/BROKEN/prove/fit', 1280, 800, 'light', 'Or mend it here', null],
];
$entered = false;
foreach ($shots as $name => [$path, $width, $height, $theme, $wait, $then]) {
    if (! $entered) {
        $browser->open('/sign-in');
        $browser->press('Enter the demo workshop');
        $browser->sees('Thistle Quay Workshop');
        $entered = true;
    }
    if ($only !== [] && ! in_array($name, $only, true)) {
        continue;
    }
    if ($name === 'repair') {
        $client = new HttpClient($url);
        $client->post('/api/session/demo');
        $broken = BrokenBuild::copy($client, 'Dunlin');
        BrokenBuild::break($broken);
        $path = str_replace('BROKEN', (string) $broken, $path);
    }
    $browser->size($width, $height);
    $browser->theme($theme);
    $browser->open($path);
    $browser->sees($wait);
    // Laid out in a worker of its own, a moment after the rest.
    $name === 'space' && $browser->find('//canvas');
    $name === 'wiring' && $browser->find('//*[local-name()="g" and contains(@class, "box")]');
    if ($then === 'import') {
        $browser->attach('//input[@type="file"]', __DIR__.'/Browser/parts-list.csv');
        $browser->sees('understood');
    } elseif ($then === 'tune') {
        $browser->press('Resonance');
        $browser->press('simulated accelerometer');
        $browser->sees('two impulses');
    } elseif ($then === 'job') {
        $browser->attach('//input[@aria-label="A program"]', dirname(__DIR__).'/demo/linnet-first-cut.nc');
        $browser->sees('by the model');
        $browser->driver->executeScript('document.querySelector("#main").scrollTo(0, 260)');
    } elseif ($then !== null) {
        $browser->press($then);
        usleep(400_000);
    }
    usleep(700_000);
    $browser->shot("{$folder}/{$name}.png");
    echo "{$name}\n";
}
$browser->quit();
foreach ($together as $file => $names) {
    $pictures = array_filter(
        array_map(
            static fn (string $name) => is_file("{$folder}/{$name}.png")
                ? imagecreatefrompng("{$folder}/{$name}.png")
                : false,
            $names,
        ),
    );
    if (count($pictures) < count($names) || ($only !== [] && array_intersect($only, $names) === [])) {
        continue;
    }
    $sheet = imagecreatetruecolor(
        max(array_map(imagesx(...), $pictures)),
        array_sum(array_map(imagesy(...), $pictures)) + 8 * (count($pictures) - 1),
    );
    imagefill($sheet, 0, 0, (int) imagecolorallocate($sheet, 218, 214, 205));
    $at = 0;
    foreach ($pictures as $picture) {
        imagecopy($sheet, $picture, 0, $at, 0, 0, imagesx($picture), imagesy($picture));
        $at += imagesy($picture) + 8;
    }
    array_map(static fn (string $name): bool => unlink("{$folder}/{$name}.png"), $names);
    imagepng($sheet, "{$folder}/{$file}.png", 9);
}
