<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Browser;

/** The main job, as a new builder would do it in a browser against the real server and database. */
final class JourneyTest extends BrowserTestCase
{
    public function test_from_a_parts_list_to_verdicts_totals_a_step_and_a_fault(): void
    {
        $b = $this->browser();

        // Sign in with a slip first.
        $b->open('/builds/1/prove/fit');
        $b->sees('Sign in');
        $b->type('E-mail address', 'isla@thistle-quay.example');
        $b->type('Password', 'wrong');
        $b->press('Sign in');
        $b->sees('No account has this e-mail address and password.');
        $b->type('Password', 'magpie-demo');
        $b->press('Sign in');
        $b->sees('worst consequence first');

        // A new build.
        $build = $this->begin($b, 'Bench trial', 'printer');
        self::assertGreaterThan(0, $build);

        // Bring a parts list: nothing is stored before it is confirmed.
        $b->press('Choose');
        $b->sees('No parts yet');
        $b->open("/builds/{$build}/choose/import");
        $b->sees('A list with a line of headings');
        $b->attach('//input[@type="file"]', __DIR__.'/parts-list.csv');
        $b->sees('was 30 A meant (360 W at 12 V)?');
        $b->sees('does not say what kind of part it is');
        $b->sees('quantity "lots" is not a whole number above nought');
        $b->press('Store 10 parts');
        $b->sees('10 parts are in the build; 2 lines could not be taken.', 30);
        $b->press('See the parts');
        $b->sees('10 needs');

        // The doubtful supply asks its question at the part, and takes the answer.
        $b->click('//button[contains(@class, "open")][normalize-space(.)="Bed supply, small"]');
        $b->sees('was 30 A meant');
        $b->press('Take 30 A and 360 W');
        $b->waitUntilGone('//*[@role="alert"][contains(., "was 30")]');
        self::assertStringContainsString('360 W', str_replace("\u{a0}", ' ', $b->text('//aside')));

        // Edit in place: a slip is named and stays typed; the right value is read back.
        $b->click('//button[contains(@class, "open")][normalize-space(.)="Heater cartridge"]');
        $b->edit('Rated power', '40 A');
        $b->sees('is a current; a power is wanted here');
        $b->find('//input[@aria-label="Rated power"]')->clear()->sendKeys('0.06 kW')->sendKeys(WebDriverKeys::ENTER);
        $b->find('//button[@aria-label="Rated power: 0.06 kW. Edit"]');
        $b->edit('What Rated power rests on', 'datasheet');
        $b->find('//button[@aria-label="What Rated power rests on: datasheet. Edit"]');
        $b->key(WebDriverKeys::ESCAPE);

        // A lead between ports, with size and length, gives verdicts at once.
        $b->press('Prove');
        $b->press('Leads');
        $b->press('Add a lead');
        $this->choose($b, 'From', '24 V power supply · out');
        $this->choose($b, 'To', 'Heater cartridge · power');
        $b->click('//form//button[normalize-space(.)="Add"]');
        $b->find('//aside//h2[contains(., "Lead W1")]');
        $b->edit('Conductor size', '20 AWG');
        $b->find('//aside//button[@aria-label="Conductor size: 20 AWG. Edit"]');
        $b->edit('Length, one way', '60 in');
        $b->find('//aside//button[@aria-label="Length, one way: 60 in. Edit"]');
        $b->edit('Run', 'fixed');
        $b->press('Power');
        $b->edit('Hottest air', '30 °C');
        $b->find('//button[@aria-label="Hottest air: 30 °C. Edit"]');
        $b->press('Fit');
        $b->find('//tr[contains(., "E13") and contains(., "Danger") and contains(., "No fuse")]');

        $b->press('by verdict');
        $b->click('//button[contains(., "E04") and contains(., "Voltage drop")]');
        $b->find('//aside//h3[contains(., "Working")]');
        $working = str_replace("\u{a0}", ' ', $b->text('//aside'));
        self::assertStringContainsString('Lost on the way', $working);
        self::assertStringContainsString('ASTM B258', $working);
        $b->press('by part');
        $b->find('//tr[contains(@class, "grouped")][contains(., "Heater cartridge")]');

        // Undo and redo.
        $b->key('u');
        $b->sees('Undone: Hottest air of the site');
        $b->key('r');
        $b->sees('Redone: Hottest air of the site');
        $b->key('h');
        $b->sees('Import parts-list.csv');
        $b->key(WebDriverKeys::ESCAPE);

        // Accepted with a reason it is counted apart, and comes back when that is taken back.
        $b->press('by cause');
        $b->click('//tr[contains(., "E13")]//button[contains(., "Protection of leads")]');
        $b->press('Accept it as it is, with a reason');
        $b->type('Why it may stand', 'On the bench only, and never alone.');
        $b->type('Who accepts it', 'Robin');
        $b->press('Accept it');
        $b->find('//section[@aria-label="Accepted"]//tr[contains(., "On the bench only") and contains(., "Robin")]');
        $b->press('No longer accept it');
        $b->find('//tr[contains(., "E13") and contains(., "Danger") and contains(., "No fuse")]');
        $b->key(WebDriverKeys::ESCAPE);

        // Power: a scenario, and headroom in amps and percent.
        $b->press('Power');
        $b->type('New scenario', 'Heat-up');
        $b->click('//form//button[normalize-space(.)="Add"]');
        // It starts with everything on, and says what is taken out of it.
        $b->find('//button[@aria-label="Heater cartridge in Heat-up: 100 %. Edit"]');
        $b->find('//tr[td[contains(., "Off in it")]][td[normalize-space(.) = "nothing"]]');
        $b->edit('Heater cartridge in Heat-up', '0');
        $b->find('//tr[td[contains(., "Off in it")]][td[starts-with(normalize-space(.), "1 of")]]');
        $b->edit('Heater cartridge in Heat-up', '100');
        // The table follows a moment after the cell: it is worked out on the server.
        $b->find('//tr[td[contains(., "24 V power supply")]][td[contains(., "A")]]');
        self::assertMatchesRegularExpression(
            '/24 V power supply 24 V \d+\.\d+ A 14\.58 A/',
            str_replace("\u{a0}", ' ', $b->text('//main//table[1]')),
            'The label of 350 W allows 14.58 A.',
        );

        // Money: packs, two currencies, a budget.
        $b->press('Buy');
        $b->press('Money');
        $b->sees('By supplier');
        $b->find('//tr[contains(., "Cap screw M5")][contains(., "1 × 50")]');
        $b->edit('Budget', '500');
        $b->sees('Left of it');
        $b->click('//button[starts-with(@aria-label, "Price of Chamber fan")]');
        $b->click('//div[@role="dialog"]//button[normalize-space(.)="What I paid"]');
        $b->type('Paid in all', '14.10');
        $b->type('Pieces', '2');
        $b->press('Store');
        $b->find('//dt[normalize-space(.)="Paid so far"]/following-sibling::dd[1][contains(., "14.10")]');

        // The bench: a step with a check, its clock over a reload, a reading and its verdict.
        $b->press('Build');
        $b->sees('No steps yet');
        $b->press('Add a step');
        $b->type('What to do', 'Fit the heater');
        $b->type('Guide time', '30 min');
        $b->click('//form//button[normalize-space(.)="Add"]');
        $b->press('To the bench: Fit the heater');
        $b->click('//button[contains(., "Start")]');
        $b->find('//button[@aria-pressed="true"][contains(., "Stop")]');
        $b->driver->navigate()->refresh();
        $b->find('//button[@aria-pressed="true"][contains(., "Stop")]');
        $b->press('Done');
        $b->find('//button[normalize-space(.)="Open again"]');

        // A fault, from here.
        $b->press('Log a fault');
        $b->type('What is wrong', 'Heater lead nicked, copper shows');
        $b->click('//label[contains(., "can hurt someone")]');
        $b->press('Log it');
        $b->sees('The machine is not to be powered until it is put right.');
        $b->press('All steps');
        $b->sees('Not to be powered: 1 open danger fault');
        $b->press('Faults');
        $b->press('Heater lead nicked, copper shows');
        $b->edit('State', 'fixed');
        $b->sees('a danger fault is only fixed once it says how');
        $b->key(WebDriverKeys::ESCAPE);
        $b->press('Heater lead nicked, copper shows');
        $b->edit('Fix', 'New lead', WebDriverKeys::CONTROL.WebDriverKeys::ENTER);
        $b->find('//aside//button[@aria-label="Fix: New lead. Edit"]');
        $b->edit('State', 'fixed');
        $b->find('//aside//button[@aria-label="State: fixed. Edit"]');
    }

    public function test_a_second_screens_edit_is_seen_and_a_clash_is_shown_with_a_way_on(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $b->open('/builds/1/choose/parts');
        $b->sees('Belts');
        $b->click('//button[starts-with(@aria-label, "Pieces of Belts: ")]');
        $other = new \Tests\Support\HttpClient((string) getenv('MAGPIE_URL'));
        $other->post('/api/session/demo');
        $other->post('/api/builds/1/edits', [
            'key' => '6f1c1f2e-7f0a-4d6e-9a58-0f1f6a6f0001',
            'label' => 'Other screen',
            'changes' => [['section' => 'needs', 'ref' => 'belt', 'set' => [['path' => ['quantity'], 'to' => 8]]]],
        ]);
        $b->find('//input[@aria-label="Pieces of Belts"]')
            ->sendKeys([WebDriverKeys::CONTROL, 'a'])
            ->sendKeys('6')
            ->sendKeys(WebDriverKeys::ENTER);
        $b->sees('It is now “8”.');
        $b->press('Keep mine');
        $b->find('//button[@aria-label="Pieces of Belts: 6. Edit"]');
        $other->post('/api/builds/1/edits', [
            'key' => '6f1c1f2e-7f0a-4d6e-9a58-0f1f6a6f0002',
            'label' => 'Other screen',
            'changes' => [['section' => 'needs', 'ref' => 'belt', 'set' => [['path' => ['quantity'], 'to' => 5]]]],
        ]);
        $b->sees('Another screen changed this build');
        $b->find('//button[@aria-label="Pieces of Belts: 5. Edit"]');
    }

    public function test_the_bench_works_on_a_phone(): void
    {
        $b = $this->browser(390, 844);
        $this->enter($b);
        $b->open('/builds/1/build/bench/d9');
        $b->sees('Mains voltage kills');
        self::assertSame(
            390,
            (int) $b->driver->executeScript(
                'return Math.max(document.documentElement.scrollWidth, document.body.scrollWidth)',
            ),
            'Nothing sticks out sideways.',
        );
        foreach (
            $b->driver->findElements(
                \Facebook\WebDriver\WebDriverBy::xpath('//footer//button | //footer//a | //header//button'),
            ) as $target
        ) {
            self::assertGreaterThanOrEqual(44, $target->getSize()->getHeight(), $target->getText());
        }
        $b->type('Reading', '0.2');
        $b->press('Store');
        $b->find('//form//*[contains(@class, "fails")][contains(., "Fails")]');
        // A hold point out of its tolerance is not passed without a reason, which stays with the step.
        $b->press('Done');
        $b->sees('It cannot be done yet:');
        $b->type('Why it goes on without', 'shimmed tomorrow');
        $b->press('Mark as done anyway');
        $b->waitUntilGone('//input[@aria-label="Why it goes on without"]');
        $b->open('/builds/1/build/bench/d9');
        $b->sees('shimmed tomorrow');
        $b->press('Open again');
        $b->find('//footer//button[normalize-space(.)="Done"]');
        $b->press('Read the simulated one');
        $b->sees('This reading is simulated.');
    }

    public function test_ports_joints_terms_and_steps_are_edited_where_they_stand(): void
    {
        $b = $this->browser();
        $this->enter($b);

        // An output more on a board, with its limit.
        $b->open('/builds/2/choose/parts');
        $b->click('//button[contains(@class, "open")][contains(., "motion controller")]');
        $b->click('//aside//h3[contains(., "Ports")]/button');
        $b->type('Name of the port', 'relay2');
        $b->click('//aside//form//button[normalize-space(.)="Add"]');
        $b->edit('rated current of port relay2', '3');
        $b->find('//aside//button[@aria-label="rated current of port relay2: 3 A. Edit"]');

        // A screw that is too short, made right from its working.
        $b->open('/builds/2/prove/fit');
        $b->click('//button[contains(., "M10")][ancestor::tr[contains(., "Fails")]]');
        $b->press('the joint');
        $b->edit('Washers', '1 + 0,5');
        $b->find('//aside//button[@aria-label="Washers: 1 mm + 0.5 mm. Edit"]');

        // A joint of one's own: its screw is judged as soon as it is described.
        $b->open('/builds/2/choose/parts');
        $b->click('//button[contains(@class, "open")][contains(., "motion controller")]');
        $b->click('//aside//h3[contains(., "Joints")]/button');
        $b->type('What joins', 'board on panel');
        $this->pick($b, 'Joined to', 'Control cabinet');
        $b->click('//aside//form//button[normalize-space(.)="Add"]');
        $b->edit('Screw', 'Rail screws, short');
        $b->edit('Clamped', '1.6');
        $b->edit('Goes into', 'tapped');
        $b->edit('Material of the thread', 'steel');
        $b->edit('These rest on', 'measured');
        $b->edit('Usable thread depth', '6');
        $b->find('//aside//li[contains(., "It bottoms before it clamps")]');

        // What a currency is worth, and what shipping costs.
        $b->open('/builds/2/buy/money');
        $b->edit('What one EUR is worth in GBP', '0.87');
        $b->find('//button[@aria-label="What one EUR is worth in GBP: 0.87. Edit"]');
        $b->ship('Cobble Fasteners', ['0' => '3.20', '60' => '0'], '3.20; from 60.00: 0.00');

        // A step with its tools, what it comes after and what to measure.
        $b->open('/builds/2/build/bench');
        $b->click('//button[starts-with(@aria-label, "Edit Mount the supplies")]');
        $b->edit('Tools', 'screwdriver, meter');
        $b->find('//aside//button[@aria-label="Tools: screwdriver, meter. Edit"]');
        $this->pick($b, 'Add a step it comes after', 'Fit the first Y rail');
        $b->find('//aside//li[contains(., "Fit the first Y rail")]');
        $b->type('What to measure', 'Earth bond');
        $b->type('Nominal', '0.05 Ω');
        $b->type('Tolerance', '0.05 Ω');
        $b->click('//aside//form//button[normalize-space(.)="Add"]');
        $b->find('//tr[contains(., "Mount the supplies")][contains(., "Earth bond")]');
    }

    public function test_find_anything_and_the_keys(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $b->open('/builds/1/prove/fit');
        $b->sees('worst consequence first');
        $b->key('f');
        $field = $b->find('//input[@role="combobox"]');
        usleep(200_000);
        $field->sendKeys('danger contact load bed')->sendKeys(WebDriverKeys::ENTER);
        $b->find('//aside//h2[contains(., "Danger")]');
        $b->key('5');
        $b->sees('To measure');
        $b->key('6');
        $b->sees('Look at it, the plug in your hand');
        $b->key('?');
        $b->sees('undo the last edit');
    }

    /**
     * Everything in one light; in the dark only what differs there, the colours; on a phone all but those.
     *
     * @return iterable<string, array{string, int, bool|null}>
     */
    public static function screens(): iterable
    {
        yield 'light, 1280 px' => ['light', 1280, null];
        yield 'dark, 1280 px' => ['dark', 1280, true];
        yield 'light, 390 px' => ['light', 390, false];
    }

    #[DataProvider('screens')]
    public function test_no_view_has_a_serious_barrier(string $theme, int $width, ?bool $contrast): void
    {
        $b = $this->browser($width, $width < 500 ? 844 : 800);
        $b->open('/sign-in');
        $b->theme($theme);
        $b->open('/sign-in');
        $b->sees('Enter the demo workshop');
        $found = ['/sign-in' => $b->barriers($contrast)];
        $this->enter($b);
        foreach (
            [
                '/' => 'Linnet',
                '/builds/2/scope/brief' => 'Smallest envelope',
                '/builds/2/scope/routes' => 'Against',
                '/builds/2/scope/variants' => 'What another size means',
                '/builds/2/choose/compare/motor-x' => 'Holding torque',
                '/builds/2/choose/decisions' => 'Candidates without',
                '/builds/2/choose/measure' => 'Measure with',
                '/builds/2/choose/library' => 'example',
                '/builds/1/choose/parts' => 'Belts',
                '/builds/1/choose/import' => 'Choose a CSV file',
                '/builds/1/prove/fit' => 'worst consequence first',
                '/builds/1/prove/leads' => 'W12',
                '/builds/1/prove/wiring' => 'Mains inlet',
                '/builds/1/prove/harness' => 'Wire to have',
                '/builds/1/prove/power' => 'Energy and running cost',
                '/builds/1/prove/ports' => 'heater0',
                '/builds/2/prove/stops' => 'Main stop pressed',
                '/builds/1/prove/settings' => 'Jumper sheet',
                '/builds/2/prove/motion' => 'Limited by',
                '/builds/2/prove/stack-up' => 'must never meet',
                '/builds/2/prove/joints' => 'Screws by the bag',
                '/builds/1/prove/heat' => 'Printed parts',
                '/builds/2/prove/place' => 'Through the door',
                '/builds/2/prove/picture' => 'Ways of the leads',
                '/builds/1/buy/basket' => 'To order',
                '/builds/2/buy/split' => 'no other split of these prices costs less',
                '/builds/1/buy/orders' => 'Ferry Lane 4471',
                '/builds/1/buy/arrivals' => 'not looked at yet',
                '/builds/1/build/tonight' => 'Leave it so',
                '/builds/1/build/open' => 'Terminal cover of the 24 V supply',
                '/builds/1/build/documents' => 'nobody has said which holds',
                '/builds/1/build/bags' => 'Tin of spares',
                '/builds/3/build/ahead' => 'Look ahead',
                '/builds/3/build/hours' => 'Sittings',
                '/builds/1/build/bench/d6' => 'is not read',
                '/builds/1/build/way-back/bed' => 'Undo W4',
                '/builds/1/build/derived' => 'Measure the earth bond',
                '/builds/1/buy/claims' => 'Ferry Lane 4471',
                '/builds/1/buy/sheet' => 'what came',
                '/builds/1/buy/prints' => 'What came off',
                '/builds/1/buy/dates' => 'In nine of ten by',
                '/builds/1/buy/money' => 'By supplier',
                '/builds/1/build/bench' => 'To the bench',
                '/builds/1/build/bench/d9' => 'Measure',
                '/builds/1/build/faults' => 'How bad',
                '/builds/1/run/ladder' => 'out of band',
                '/builds/1/run/readings' => 'output voltage',
                '/builds/3/run/straight' => 'A circle, cut or drawn',
                '/builds/3/run/tune' => 'Pluck the free span',
                '/builds/2/run/jobs' => 'Before the start',
                '/builds/3/run/upkeep' => 'Reference pieces',
                '/builds/3/run/book' => 'Signed off',
            ] as $path => $wait
        ) {
            $b->go($path);
            $b->holds($wait);
            // The last of what is asked of the server is there a moment after the first.
            usleep(100_000);
            $found[$path] = $b->barriers($contrast);
            $wide = $b->driver->executeScript(
                'const m = document.querySelector("#main") ?? document.documentElement;'.
                    'return m.scrollWidth - m.clientWidth',
            );
            $found["{$path} sticks out sideways"] = $wide > 1 ? [$wide] : [];
        }
        $b->open('/builds/1/prove/fit?verdict=danger');
        $b->click('//button[contains(., "E02")]');
        $b->find('//aside//h3[contains(., "Working")]');
        $found['working panel'] = $b->barriers($contrast);
        $b->open('/builds/1/choose/parts');
        $b->press('24 V controller board, 5 drivers');
        $b->find('//aside//h2');
        $found['part panel'] = $b->barriers($contrast);
        $b->open('/builds/2/choose/decisions');
        $b->press('Which motor for X?');
        $b->find('//aside//h3[contains(., "Who says what")]');
        $found['decision panel'] = $b->barriers($contrast);
        $b->open('/builds/2/choose/library');
        $b->click('//*[@role="listitem"][contains(., "Arc source")]');
        $b->find('//aside//h3[contains(., "Known faults")]');
        $found['library panel'] = $b->barriers($contrast);
        if ($width < 500) {
            $b->click('//header//button[@aria-controls="all-places"]');
        }
        $b->press('Log a fault');
        $b->find('//label[contains(., "can hurt someone")]');
        usleep(400_000);
        $found['fault dialog'] = $b->barriers($contrast);

        self::assertSame([], array_filter($found));
    }
}
