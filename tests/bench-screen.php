<?php

declare(strict_types=1);

// How long an edit takes for who makes it, and how smoothly a machine turns in space: from the Enter key to the page that shows it with its verdicts, in headless
// Chromium, on a build of 150 parts. Started by bin/magpie bench screen, which serves the demo at MAGPIE_URL.

use Facebook\WebDriver\WebDriverKeys;
use Magpie\Core\Format\BuildFile;
use Tests\Support\Browser;
use Tests\Support\HttpClient;
use Tests\Support\LargeBuild;

require __DIR__.'/../vendor/autoload.php';

$url = (string) getenv('MAGPIE_URL');
$client = new HttpClient($url);
$client->post('/api/session/demo');
$workshop = $client->get('/api/builds')[0]['id'];
$id = $client->post('/api/builds', ['workshop' => $workshop, 'file' => BuildFile::write(LargeBuild::of(150))])['id'];
$browser = new Browser($url);
$browser->open('/sign-in');
$browser->press('Enter the demo workshop');
$browser->sees('Thistle Quay Workshop');

/** From Enter until the field is closed again and says something else than before, and that has been painted. */
$watch = <<<'JS'
window.magpieEdit = null
const said = () => [...document.querySelectorAll('button[aria-label]')]
    .map((one) => one.getAttribute('aria-label')).find((one) => one.startsWith(`${label}: `))
const label = arguments[0], before = said()
const closed = () => said() !== undefined && said() !== before
addEventListener('keydown', function enter(event) {
    if (event.key !== 'Enter') return
    removeEventListener('keydown', enter, true)
    const from = performance.now()
    const look = () => closed()
        ? requestAnimationFrame(() => setTimeout(() => (window.magpieEdit = performance.now() - from)))
        : requestAnimationFrame(look)
    requestAnimationFrame(look)
}, true)
JS;

foreach (
    [
        'a length on Leads' => ['prove/leads', 'Length of D0', static fn (int $i): string => 500 + $i.' mm'],
        'pieces on Parts' => ['choose/parts', 'Pieces of ', static fn (int $i): string => (string) (2 + ($i % 7))],
        'a speed on Motion' => ['prove/motion', 'Top speed of X 0', static fn (int $i): string => 60 + $i.' mm/s'],
    ] as $what => [$path, $label, $value]
) {
    $browser->open("/builds/{$id}/{$path}");
    // The first that is called so.
    $field = $browser->find("//button[starts-with(@aria-label, '{$label}')][contains(@aria-label, ': ')]", 30);
    $label = explode(': ', (string) $field->getAttribute('aria-label'))[0];
    $took = [];
    for ($i = 0; $i < 24; $i++) {
        $browser->driver->executeScript($watch, [$label]);
        $browser->edit($label, $value($i), WebDriverKeys::ENTER);
        for ($try = 0; $try < 200; $try++) {
            $found = $browser->driver->executeScript('return window.magpieEdit');
            if (is_numeric($found)) {
                $took[] = (float) $found;
                break;
            }
            usleep(20_000);
        }
        // A person moves on before the next one.
        usleep(300_000);
    }
    sort($took);
    printf(
        "150 parts, %s: %d edits, middle %.0f ms, 95 of a hundred under %.0f ms, most %.0f ms (budget 300)\n",
        $what,
        count($took),
        $took[intdiv(count($took), 2)] ?? NAN,
        $took[(int) floor(0.95 * count($took))] ?? NAN,
        $took[count($took) - 1] ?? NAN,
    );
}

// Turned in space by the mouse for three seconds: how many pictures a second it draws. Without a graphics card they are drawn by the processor.
$placed = $client->post('/api/builds', ['workshop' => $workshop, 'file' => BuildFile::write(LargeBuild::placed(150))])[
    'id'
];
$browser->open("/builds/{$placed}/prove/picture");
$browser->press('In space');
$browser->find('//canvas[contains(@aria-label, "in space")]', 60);
$turn = <<<'JS'
const done = arguments[0], canvas = document.querySelector('canvas')
const box = canvas.getBoundingClientRect(), from = performance.now(), took = []
const send = (type, x) => canvas.dispatchEvent(new PointerEvent(type, {
    bubbles: true, pointerId: 1, pointerType: 'mouse', button: 0, buttons: type === 'pointerup' ? 0 : 1,
    clientX: box.left + x, clientY: box.top + 200,
}))
canvas.setPointerCapture = canvas.releasePointerCapture = () => {}
let x = 100, last = from
send('pointerdown', x)
const turn = () => {
    const now = performance.now()
    took.push(now - last)
    last = now
    if (now - from > 3000) { send('pointerup', x); done(took.slice(1)); return }
    send('pointermove', (x += 4))
    requestAnimationFrame(turn)
}
requestAnimationFrame(turn)
JS;
$browser->driver->manage()->timeouts()->setScriptTimeout(30);
$before = $browser->driver->takeScreenshot();
/** @var list<float> $took */
$took = array_map(floatval(...), (array) $browser->driver->executeAsyncScript($turn));
sort($took);
printf(
    "158 bodies in space, turned%s: %.0f pictures a second, 95 of a hundred within %.0f ms (budget 20 a second)\n",
    $before === $browser->driver->takeScreenshot() ? ' (it did NOT turn)' : '',
    (1000 * count($took)) / max(1, array_sum($took)),
    $took[(int) floor(0.95 * count($took))] ?? NAN,
);
$browser->quit();
