<?php

declare(strict_types=1);

namespace Tests\Browser;

use Illuminate\Support\Str;
use Tests\Support\Browser;
use Tests\Support\HttpClient;
use Tests\Support\Line;

/** The bench on a phone whose network goes: nothing is lost, nothing is doubled, and what disagrees is shown. */
final class OfflineTest extends BrowserTestCase
{
    private Line $line;

    private Browser $phone;

    private HttpClient $server;

    protected function setUp(): void
    {
        $this->line = new Line((string) getenv('MAGPIE_URL'));
        $this->phone = new Browser($this->line->url, 390, 844);
        $this->server = new HttpClient((string) getenv('MAGPIE_URL'));
        $this->server->post('/api/session/demo');
    }

    protected function tearDown(): void
    {
        // A browser whose network is gone says so itself.
        $complaints = array_filter(
            $this->phone->complaints(),
            static fn (string $c): bool => ! str_contains($c, 'Failed to load resource'),
        );
        $this->phone->quit();
        $this->line->take();
        self::assertSame([], array_values($complaints), 'The page complained on its console.');
    }

    /**
     * @param  list<array<string, mixed>>  $steps
     */
    private function withSteps(string $name, array $steps): int
    {
        $workshop = $this->server->get('/api/builds')[0]['id'];
        $build = (int) $this->server->post('/api/builds', [
            'workshop' => $workshop,
            'name' => $name,
            'kind' => 'printer',
            'currency' => 'GBP',
        ])['id'];
        $this->write(
            $build,
            array_map(
                static fn (array $s, int $i): array => [
                    'section' => 'steps',
                    'create' => $s + ['position' => 10 * ($i + 1), 'section' => 'Frame'],
                ],
                $steps,
                array_keys($steps),
            ),
        );

        return $build;
    }

    /**
     * @param  list<array<string, mixed>>  $changes
     */
    private function write(int $build, array $changes): void
    {
        [$status, $answer] = $this->server->send('POST', "/api/builds/{$build}/edits", [
            'key' => (string) Str::uuid(),
            'label' => 'By another',
            'changes' => $changes,
        ]);
        self::assertSame(200, $status, (string) json_encode($answer));
    }

    /**
     * @return array<string, array<string, mixed>> of the server, by ref
     *
     * @phpstan-impure
     */
    private function stored(int $build, string $section): array
    {
        return array_column($this->server->get("/api/builds/{$build}")['document'][$section] ?? [], null, 'ref');
    }

    /** Opens the bench, and waits until it lies on the phone. */
    private function lay(int $build): void
    {
        $this->enter($this->phone);
        $this->phone->open("/builds/{$build}/build/bench");
        $this->phone->find('//p[contains(., "On this device since")]', 30);
    }

    public function test_a_fault_a_reading_and_a_step_done_with_no_network_arrive_once_it_is_back(): void
    {
        $p = $this->phone;
        $this->enter($p);
        $build = $this->begin($p, 'Shed trial', 'printer');
        $p->open("/builds/{$build}/build/bench");
        foreach (['Lay out the parts', 'Stand the uprights'] as $title) {
            $p->press('Add a step');
            $p->type('Section', 'Frame');
            $p->type('What to do', $title);
            $p->click('//form//button[normalize-space(.)="Add"]');
            $p->find('//table//a[normalize-space(.)="'.$title.'"]');
        }
        $this->write($build, [
            [
                'section' => 'steps',
                'ref' => 's2',
                'set' => [
                    ['path' => ['check'], 'to' => ['what' => 'square', 'nominal' => '0 mm', 'tolerance' => '0.5 mm']],
                ],
            ],
        ]);
        $p->open("/builds/{$build}/build/bench/s2");
        $p->sees('square');
        $p->open("/builds/{$build}/build/bench");
        $p->find('//p[contains(., "On this device since")]', 30);
        $this->line->set('cut');

        // Never visited before, and it opens.
        $p->open("/builds/{$build}/build/bench/s2");
        $p->sees('Stand the uprights');

        // Three touches: the button, the words, the button; what is at hand is offered and taken.
        $p->press('Log a fault');
        $p->type('What is wrong', 'Upright bent');
        $p->find(
            '//div[@role="group" and @aria-label="On what is at hand"]//button[@aria-pressed="true" and contains(., "Stand the uprights")]',
        );
        $p->press('Log it');
        $p->find('//*[@role="status"][contains(., "kept on this device")]');

        // Another with a picture and a spot on it.
        $picture = sys_get_temp_dir().'/magpie-spot.png';
        $canvas = imagecreatetruecolor(2400, 1200);
        imagefill($canvas, 0, 0, (int) imagecolorallocate($canvas, 90, 120, 90));
        imagepng($canvas, $picture);
        $p->press('Log a fault');
        $p->type('What is wrong', 'Bare terminal');
        $p->click('//label[contains(., "danger") and contains(., "start a fire")]');
        $p->attach('//form//input[@type="file"]', __FILE__);
        $p->sees('is not a picture that can be read');
        $p->attach('//form//input[@type="file"]', $picture);
        $p->click('//button[@aria-label="Mark a spot on the picture"]');
        $p->find('//button[@aria-label="Spot 1; take it away"]');
        $p->press('Log it');
        $p->find('//*[@role="status"][contains(., "2 entries")]');

        $p->type('Reading', '0.3');
        $p->press('Store');
        $p->find('//*[@role="status"][contains(., "3 entries")]');
        $p->press('Done');
        $p->sees('open danger: Bare terminal');
        $p->type('Why it goes on without', 'covered with tape until the cap is here');
        $p->press('Mark as done anyway');
        $p->find('//*[@role="status"][contains(., "4 entries")]');
        self::assertSame([], $this->stored($build, 'faults'), 'Nothing has reached the server.');

        // The page is thrown away and opened again, still with no network.
        $p->open("/builds/{$build}/build/faults");
        $p->sees('Upright bent');
        $p->open("/builds/{$build}/build/bench");
        $p->find('//tr[contains(., "Stand the uprights")]//td[normalize-space(.)="done"]');

        $this->line->set('open');
        $p->waitUntilGone('//*[@role="status"][contains(., "kept on this device")]', 20);
        $faults = array_column($this->stored($build, 'faults'), null, 'what');
        self::assertSame(['Upright bent', 'Bare terminal'], array_keys($faults));
        self::assertSame('s2', $faults['Upright bent']['step']);
        foreach (['x', 'y'] as $side) {
            self::assertEqualsWithDelta(500, $faults['Bare terminal']['marks'][0][$side], 20);
        }
        $sent = $this->server->raw("/api/builds/{$build}/photos/{$faults['Bare terminal']['photos'][0]}");
        self::assertSame(
            [1600, 800],
            array_slice((array) getimagesizefromstring($sent), 0, 2),
            'Made smaller before it was sent.',
        );
        $step = $this->stored($build, 'steps')['s2'];
        self::assertSame(['done', '0.3 mm'], [$step['state'], $step['check']['measured']]);
        $p->open("/builds/{$build}/build/faults");
        $p->sees('Bare terminal');
        $p->open('/');
        $p->sees('Not to be powered');
    }

    public function test_two_hundred_acts_through_a_poor_line_and_a_killed_page_are_stored_once_each_in_their_order(): void
    {
        $p = $this->phone;
        $refs = array_map(static fn (int $i): string => "a{$i}", range(1, 8));
        $build = $this->withSteps(
            'Two hundred',
            array_map(static fn (string $r): array => ['ref' => $r, 'title' => "Act {$r}"], $refs),
        );
        $this->lay($build);
        $p->open("/builds/{$build}/build/bench/a1");
        $p->sees('Act a1');
        $laid = $this->server->get("/api/builds/{$build}/revision")['revision'];
        $this->line->set('cut');
        // By the buttons of the page itself, as fast as it takes them: clocks, done and open again, from step to step.
        $acts = $p->driver->executeAsyncScript(
            <<<'JS'
            const done = arguments[arguments.length - 1]
            let seed = 20261128
            const random = () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648
            const kept = () => Number((document.querySelector('.waiting')?.innerText.match(/(\d+) entr/) ?? [0, 0])[1])
            const wait = (ms) => new Promise((go) => setTimeout(go, ms))
            const button = (name) => [...document.querySelectorAll('footer button')].find((one) => one.innerText.trim().endsWith(name))
            ;(async () => {
              let count = 0
              while (count < 200) {
                const kind = random()
                const before = kept()
                const one = kind < 0.6 ? (button('Start') ?? button('Stop')) : kind < 0.9 ? (button('Done') ?? button('Open again')) : undefined
                if (one === undefined) {
                  const links = [...document.querySelectorAll('footer a')]
                  links[Math.floor(random() * links.length)]?.click()
                  await wait(40)
                  continue
                }
                one.click()
                for (let i = 0; i < 100 && kept() === before; i++) await wait(10)
                await wait(15)
                count = kept()
              }
              done(count)
            })().catch((error) => done(String(error)))
            JS
            ,
        );
        self::assertIsInt($acts, (string) json_encode($acts));
        self::assertGreaterThanOrEqual(200, $acts);

        // A slow device may still have been keeping a press or two when they were counted: none may be missing.
        $p->open("/builds/{$build}/build/bench");
        $acts = $this->kept($acts);
        $shown = $this->states($refs);

        // The line comes and goes, answers are lost on it, and the page is thrown away in the middle.
        $this->line->set('open');
        $this->untilEdits($build, 20);
        $this->line->set('deaf');
        usleep(6_000_000);
        $this->line->set('cut');
        $p->open("/builds/{$build}/build/bench");
        $this->line->set('open');
        $this->untilEdits($build, 70);
        $p->driver->get('about:blank');
        $p->open("/builds/{$build}/build/bench");
        // Before the page stands there is nothing to be gone.
        $p->find('//h1[normalize-space(.)="Bench"]');
        $p->waitUntilGone('//*[@role="status"][contains(., "kept on this device")]', 90);

        $revision = $this->server->get("/api/builds/{$build}/revision")['revision'];
        self::assertSame($laid + $acts, $revision, 'Each once.');
        self::assertSame($shown, $this->states($refs), 'The phone shows what it showed.');
        foreach ($this->stored($build, 'steps') as $ref => $step) {
            self::assertSame($shown[$ref] === 'done', $step['state'] === 'done', $ref);
            foreach ($step['timings'] ?? [] as $i => $timing) {
                self::assertTrue(
                    isset($timing['stop']) || $i === count($step['timings']) - 1,
                    'Clocks start and stop in turn.',
                );
            }
        }
        $p->open("/builds/{$build}/build/hours");
        $p->sees('Hours');
    }

    public function test_what_another_changed_meanwhile_is_shown_beside_and_neither_is_lost_in_silence(): void
    {
        $p = $this->phone;
        $check = ['what' => 'gap', 'nominal' => '0.2 mm', 'tolerance' => '0.1 mm'];
        $build = $this->withSteps('Two at once', [
            ['ref' => 'a', 'title' => 'Set the gap', 'check' => $check],
            ['ref' => 'b', 'title' => 'Loose end'],
        ]);
        $this->lay($build);
        $p->open("/builds/{$build}/build/bench/a");
        $p->sees('Set the gap');
        $this->line->set('cut');
        $p->type('Reading', '0.25');
        $p->press('Store');
        $p->find('//*[@role="status"][contains(., "1 entry")]');
        $p->open("/builds/{$build}/build/bench/b");
        $p->press('Done');
        $p->find('//*[@role="status"][contains(., "2 entries")]');
        $this->write($build, [
            ['section' => 'steps', 'ref' => 'a', 'set' => [['path' => ['check', 'measured'], 'to' => '0.29 mm']]],
            ['section' => 'steps', 'ref' => 'b', 'delete' => true],
        ]);
        $this->line->set('open');

        $p->find('//*[@role="status"][contains(., "another screen stored 0.29 mm") and contains(., "And 1 more")]', 20);
        self::assertSame('0.29 mm', $this->stored($build, 'steps')['a']['check']['measured'], 'Not overwritten.');
        $p->press('Show them');
        $p->find('//table//tr[contains(., "0.25") and contains(., "0.29")]');
        $p->press('Store mine all the same');
        $p->find('//ul[contains(@class, "kept")][count(li) = 1]');
        self::assertSame('0.25 mm', $this->stored($build, 'steps')['a']['check']['measured']);
        $p->press('Leave what is there');
        $p->waitUntilGone('//*[@role="status"][contains(., "could not be stored")]');
        self::assertArrayNotHasKey('b', $this->stored($build, 'steps'));
    }

    /** How many entries the page says this device keeps, once they are at least so many. */
    private function kept(int $least): int
    {
        $bar = '//*[@role="status"][contains(., "kept on this device")]';
        $this->phone->find($bar, 90);
        for ($end = microtime(true) + 30, $kept = 0; $kept < $least && microtime(true) < $end;) {
            $kept = (int) preg_replace('/^.*?(\d+) entr.*$/s', '$1', $this->phone->text($bar));
        }
        self::assertGreaterThanOrEqual($least, $kept, 'What was kept is kept when the page is opened anew.');

        return $kept;
    }

    /** Waits until the server has stored so many edits. */
    private function untilEdits(int $build, int $count): void
    {
        for ($i = 0; $i < 600 && $this->server->get("/api/builds/{$build}/revision")['revision'] < $count; $i++) {
            usleep(50_000);
        }
    }

    /**
     * @param  list<string>  $refs
     * @return array<string, string> what the bench shows of each step
     */
    private function states(array $refs): array
    {
        $states = [];
        foreach ($refs as $ref) {
            $state = $this->phone->text(
                '//tr[.//a[normalize-space(.)="Act '.
                    $ref.
                    '"]]/td[contains(@class, "small") and not(contains(@class, "wide-only"))]',
            );
            $states[$ref] = $state === 'done' ? 'done' : 'open';
        }

        return $states;
    }
}
