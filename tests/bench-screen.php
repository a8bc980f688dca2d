<?php

declare(strict_types=1);

// How long an edit takes for who makes it: from the Enter key to the page that shows it with its verdicts, in headless
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
$browser->quit();
