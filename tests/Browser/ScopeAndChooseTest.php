<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** From a wish to a defended choice, as a new builder would walk it. */
final class ScopeAndChooseTest extends BrowserTestCase
{
    public function test_a_wish_becomes_a_brief_and_a_decided_route(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $build = $this->begin($b, 'Wish', 'router');

        // The brief: what it must make. A slip is named, stays typed and is put right.
        $b->press('Scope');
        $b->sees('What it must make');
        $b->type('A further workpiece', 'Fretboard');
        $b->click('//form[.//input[@aria-label="A further workpiece"]]//button');
        $b->edit('Length of Fretboard', '500 g');
        $b->sees('a length is wanted here');
        $b->find('//input[@aria-label="Length of Fretboard"]')
            ->clear()
            ->sendKeys('20 in')
            ->sendKeys(WebDriverKeys::ENTER);
        $b->find('//button[@aria-label="Length of Fretboard: 20 in. Edit"]');
        $b->edit('Width of Fretboard', '90');
        $b->edit('Height of Fretboard', '9');
        $b->sees('528 mm × 110 mm × 19 mm of travel hold every workpiece');

        // Where: a country brings its mains; who: nobody practised means a helper.
        $b->edit('Country', 'United Kingdom');
        $b->find('//button[@aria-label="Mains voltage: 230 V. Edit"]');
        $b->find('//button[@aria-label="Outlet: 13 A. Edit"]');
        $b->edit('Wire is sold in', 'AWG');
        $b->find('//button[@aria-label="Wire is sold in: AWG. Edit"]');
        $b->edit('Spindle power in mind', '800');
        $b->sees('A 800 W spindle takes about 7.51 A');
        $b->edit('Room, length', '400 mm');
        $b->sees('the room ends at', 10);
        $b->find('//input[@aria-label="Room, length"]')->clear()->sendKeys('3 m')->sendKeys(WebDriverKeys::ENTER);
        $b->find('//button[@aria-label="Room, length: 3 m. Edit"]');
        $b->edit('Room, width', '400 mm');
        $b->find('//button[@aria-label="Room, width: 400 mm. Edit"]');

        // Door and outline are judged as soon as both are said, and again when one changes.
        $b->edit('Door, width', '740');
        $b->edit('Door, height', '1940');
        foreach (['length' => '900', 'width' => '700', 'height' => '600'] as $side => $size) {
            $b->edit("Outside, {$side}", $size);
        }
        $b->edit('What the outside rests on', 'measured');
        $b->find('//section[@aria-label="What follows"]//button[contains(., "to spare")][contains(., "740")]');
        $b->edit('Door, width', '580');
        $b->find('//section[@aria-label="What follows"]//button[contains(., "does not go through in one piece")]');

        // Travel that is left, with all that takes some.
        $b->type('A further direction', 'X');
        $b->click('//form[.//input[@aria-label="A further direction"]]//button');
        $b->edit('Length of X to begin with', '540');
        $b->edit('What the length of X rests on', 'measured');
        $b->find(
            '//section[@aria-label="What follows"]//button[contains(., "540 mm of travel are left") or contains(., "540") and contains(., "travel are left")]',
        );
        $b->press('Add what else uses up travel');
        $b->type('What takes it', 'Stops');
        $b->type('How much', '20');
        $b->click('//form[.//input[@aria-label="What takes it"]]//button');
        $b->find('//section[@aria-label="What follows"]//button[contains(., "are missing")]');

        // Two routes; one of them costs something by a supplier.
        $b->open("/builds/{$build}/buy/money");
        $b->type('A further supplier', 'Ferry Lane Motion');
        $b->click('//form[.//input[@aria-label="A further supplier"]]//button');
        $b->ship('Ferry Lane Motion', ['0' => '20'], '20.00');
        $b->open("/builds/{$build}/scope/routes");
        $b->sees('Describe at least two ways');
        foreach (['Built' => ['ready-built', '1500'], 'Kit' => ['kit', '700']] as $name => [$kind, $price]) {
            $b->type('A further route', $name);
            $this->pick($b, 'Kind of route', $kind);
            $b->press('Add this route');
            $b->find('//section[contains(@class, "route")]//h2[contains(., "'.$name.'")]');
            $b->type('A further thing it pays for', "{$name}, boxed");
            $this->pick($b, 'Kind of line', 'box');
            $b->type('Price', $price);
            $this->pick($b, 'Supplier', 'Ferry Lane Motion (GBP)');
            $b->click('//section[contains(@class, "route")]//form//button[normalize-space(.)="Add"]');
            $b->find('//button[@aria-label="Price of '.$name.', boxed: '.$price.'.00. Edit"]');
            $b->edit('Guide hours of mechanics', $name === 'Kit' ? '20' : '1');
            $b->find('//button[starts-with(@aria-label, "Guide hours of mechanics: ")]');
        }
        $b->sees('Built costs 111 % more than Kit (GBP 1520.00 against GBP 720.00 at the door)');
        $b->click('(//button[normalize-space(.)="Take this route"])[1]');
        $b->type('Why Kit?', 'It is half the money.');
        $b->press('Decide');
        $b->sees('Decided: Kit');

        // A question of practice, with its reason.
        $b->click('//tr[contains(., "Home by switches or without?")]//button[normalize-space(.)="switches"]');
        $b->type('Why switches?', 'No tuning.');
        $b->press('Choose this side');
        $b->sees('“No tuning.”');
        $b->open("/builds/{$build}/choose/decisions");
        $b->sees('0 wait, 2 stand');

        // When the kit becomes dearer, the decision opens again.
        $b->open("/builds/{$build}/scope/routes");
        $b->press('Kit');
        $b->edit('Price of Kit, boxed', '760');
        $b->open("/builds/{$build}/choose/decisions");
        $b->sees('Kit, at the door: GBP 720.00 → GBP 780.00');
    }

    public function test_candidates_are_compared_in_place_chosen_and_measured(): void
    {
        $b = $this->browser();
        $this->enter($b);

        // A variant of Linnet to try things in.
        $b->open('/builds/2/scope/variants');
        $b->type('Name of the variant', 'Linnet, trial');
        $b->press('Fork this build');
        $b->find('//strong[normalize-space(.)="Linnet, trial"]');
        $build = preg_match('#/builds/(\d+)/#', $b->path(), $m) === 1 ? (int) $m[1] : 0;
        self::assertGreaterThan(2, $build);

        // A candidate from the library shows what it would turn; the build is as it was.
        $b->open("/builds/{$build}/choose/compare/psu48");
        $b->sees('48 V supply, 600 W, caged');
        $before = $b->text('//nav[@aria-label="Tally"]');
        $b->press('Add a candidate');
        $b->type('Words of the part', '48 v 1000');
        $b->click('//button[contains(@class, "row")][not(@disabled)][contains(., "48 V supply, 1000 W")]');
        $b->find('//th//strong[contains(., "48 V supply, 1000 W")]');
        $b->sees('an example, not to order by');
        self::assertSame($before, $b->text('//nav[@aria-label="Tally"]'), 'Comparing changes no verdict.');

        // Weights order, with both terms of a ratio named.
        $b->press('Give each line a weight');
        $this->pick($b, 'Weight of Efficiency at full load', '5');
        $b->sees('By your weights');
        $b->sees('Rated output power, W per GBP');

        // Choosing wants a reason, and keeps it with what was rejected.
        $b->click('//button[@aria-label="Choose 48 V supply, 600 W, caged"]');
        $b->type('Why 48 V supply, 600 W, caged?', 'Carries three axes and the spindle.');
        $b->press('Choose it');
        $b->find('//th[.//strong[contains(., "600 W")]]//*[contains(., "chosen now")]');
        $b->open("/builds/{$build}/choose/decisions");
        $b->find('//tr[contains(., "48 V supply")][contains(., "stands")]//button')->click();
        $panel = $b->text('//aside');
        self::assertStringContainsString('Carries three axes and the spindle.', $panel);
        self::assertStringContainsString('48 V supply, 350 W, caged', $panel, 'What was not taken is kept.');

        // An opinion, with what its giver has to gain.
        $b->type('What was said', 'Runs hot in summer.');
        $b->type('Of what', '48 V supply, 600 W');
        $this->pick($b, 'Interest of who says it', 'own test');
        $b->press('Keep it');
        $b->find('//aside//li[contains(., "Runs hot in summer.")][contains(., "own test")]');

        // Measure first: a reading is written where it stands and its line is done.
        $b->open("/builds/{$build}/choose/measure");
        $b->click('//button[starts-with(normalize-space(.), "All ")]');
        $b->find('//tr[contains(., "Host computer")][contains(., "clamp meter")]');
        $b->click(
            '//tr[contains(., "Host computer")][contains(., "clamp meter")]//button[starts-with(@aria-label, "Reading of")]',
        );
        $b->driver->switchTo()->activeElement()->sendKeys('0.31 V')->sendKeys(WebDriverKeys::ENTER);
        $b->sees('a current is wanted here');
        $b->driver
            ->switchTo()
            ->activeElement()
            ->sendKeys([WebDriverKeys::CONTROL, 'a'])
            ->sendKeys('1.4')
            ->sendKeys(WebDriverKeys::ENTER);
        $b->waitUntilGone('//tr[contains(., "Host computer")][contains(., "Highest current")]');

        // Two variants line by line.
        $b->open("/builds/{$build}/scope/variants");
        $b->press('Compare');
        $b->find('//tr[contains(., "48 V motor and spindle supply")][contains(., "600 W")][contains(., "350 W")]');
    }

    public function test_the_library_is_searched_walked_and_kept(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $b->open('/builds/2/choose/library');
        $b->find('//*[@role="status"][contains(., "parts")]');

        // Walking down the list fetches what comes.
        $last = '//*[@role="listitem"][contains(., "Torque screwdriver")]';
        for ($i = 0; $i < 60 && $b->driver->findElements(\Facebook\WebDriver\WebDriverBy::xpath($last)) === []; $i++) {
            $b->driver->executeScript('document.querySelector(".v-virtual-scroll").scrollBy(0, 1500)');
            usleep(120_000);
        }
        $b->find($last);
        self::assertLessThan(
            120,
            count($b->driver->findElements(\Facebook\WebDriver\WebDriverBy::xpath('//*[@role="listitem"]'))),
            'Only what shows is drawn.',
        );

        $b->type('Words and figures of the part', 'm5 16 cap');
        $b->find('//*[@role="status"][normalize-space(.)="1 part"]');
        $b->click('//*[@role="listitem"]');
        $b->find('//aside//*[contains(., "An invented example to start with.")]');
        $b->edit('Length under the head', '16 s');
        $b->sees('a length is wanted here');
        $b->find('//input[@aria-label="Length under the head"]')->sendKeys(WebDriverKeys::ESCAPE);
        $b->type('What is wrong with it', 'Head too wide for its slot');
        $b->click('//aside//form[.//input[@aria-label="What is wrong with it"]]//button');
        $b->find('//aside//li[contains(., "Head too wide for its slot")]');
        $b->press('Undo the last change');
        $b->waitUntilGone('//aside//li[contains(., "Head too wide for its slot")]');

        // A part of one's own, its price and its way into a build.
        $b->key(WebDriverKeys::ESCAPE);
        $b->press('Add a part');
        $b->type('Name of the part', 'Quiet cabinet fan');
        $this->pick($b, 'Kind of the new part', 'fan');
        $b->press('Add to the library');
        $b->find('//aside//h2[contains(., "Quiet cabinet fan")]');
        $b->edit('Rated current', '90 mA');
        $b->find('//aside//button[@aria-label="Rated current: 90 mA. Edit"]');
        $b->type('Supplier', 'Harbour Row Tools');
        $b->type('Price', '7.50');
        $b->click('//aside//form[.//input[@aria-label="Supplier"]]//button');
        $b->find('//aside//li[contains(., "£7.50")]');
        $b->click('//aside//button[normalize-space(.)="Cabinet fan"]');
        $b->sees('It is a candidate now');

        // The standard tables, each with its source.
        $b->press('Standard tables');
        $b->sees('NEMA ICS 16');
        $b->press('Ball bearings');
        $b->find('//tr[td[normalize-space(.)="608"]][contains(., "22")]');
    }

    public function test_a_danger_is_put_right_by_the_cheapest_fix_and_its_path_walked(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $b->open('/builds/1/scope/variants');
        $b->type('Name of the variant', 'Dunlin, wired again');
        $b->press('Fork this build');
        $b->find('//strong[normalize-space(.)="Dunlin, wired again"]');
        $build = preg_match('#/builds/(\d+)/#', $b->path(), $m) === 1 ? (int) $m[1] : 0;

        // Fixes are tried on the whole build; one click applies, and one key takes it back.
        $b->open("/builds/{$build}/prove/fit?verdict=danger");
        $b->click('//button[contains(., "E02")][ancestor::tr[contains(., "W4")]]');
        $b->press('Look for fixes');
        $b->find('//aside//ol//li[contains(., "3 contacts per pole at Bed heater")]');
        $b->press('Apply: 3 contacts per pole at Bed heater, for W4');
        $b->find('//aside//h2[contains(., "Holds")]');
        $b->key('u');
        $b->find('//aside//h2[contains(., "Danger")]');
        $b->key(WebDriverKeys::ESCAPE);

        // From the wall to the bed: every lead with volts, amps and its worst contact.
        $b->open("/builds/{$build}/prove/wiring");
        $b->press('Show all');
        $b->click('//*[local-name()="g"][@role="button"][contains(., "Bed heater")]');
        $b->find('//section[@aria-label="The way to a load"]//tr[contains(., "W4")][contains(., "122 %")]');
        self::assertCount(
            3,
            $b->driver->findElements(
                \Facebook\WebDriver\WebDriverBy::xpath('//section[@aria-label="The way to a load"]//tbody//tr'),
            ),
            'Inlet to supply, supply to switch, switch to bed.',
        );
        $b->press('signal');
        $b->find('//*[local-name()="g"][@role="button"][contains(., "Bed thermistor")]');

        // The list to cut from, ticked off.
        $b->press('Harness');
        $b->sees('0 of 27 leads made');
        $b->click('//input[@aria-label="W1 is made"]');
        $b->sees('1 of 27 leads made');
    }

    public function test_a_bad_day_the_ports_the_settings_and_fixes_together(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $b->open('/builds/1/scope/variants');
        $b->type('Name of the variant', 'Dunlin, audited');
        $b->press('Fork this build');
        $b->find('//strong[normalize-space(.)="Dunlin, audited"]');
        $build = preg_match('#/builds/(\d+)/#', $b->path(), $m) === 1 ? (int) $m[1] : 0;

        $b->open("/builds/{$build}/prove/wiring");
        $b->find('//option[normalize-space(.)="twice Bed heater"]');
        $this->pick($b, 'What if a load doubles', 'twice Bed heater');
        $b->find('//*[@role="status"][contains(., "If that happens")]//li');

        $b->press('Ports');
        $b->sees('All 13 have a channel');
        $b->find('//tr[contains(., "fan1")][contains(., "Part fan")][contains(., "wired")]');
        $b->find('//li[contains(., "shares pin P2.4 with Board fan")]');

        // A line read back agrees or differs at once; a temporary link is ticked when it is undone.
        $b->press('Settings');
        $b->edit('Current of Z driver, rms is', '1.3 A');
        $b->find('//tr[contains(., "Current of Z driver")][contains(., "differs")]');
        $b->edit('Current of Z driver, rms is', '1.1 A');
        $b->find('//tr[contains(., "Current of Z driver")][contains(., "agrees")]');
        $b->click('//input[@aria-label="USB power link on the board, for flashing: done"]');
        $b->find('//tr[contains(., "USB power link")][contains(., "undone")]');

        $b->press('Stops');
        $b->find('//tr[contains(., "Bed heater")][contains(., "live")]');

        $b->open("/builds/{$build}/prove/fit");
        $b->press('Fix several');
        foreach (['W3', 'W6'] as $lead) {
            $b->click(
                "//section[@aria-label=\"Fixes together\"]//label[contains(., \"E03\")][contains(., \"{$lead}:\")]",
            );
        }
        $b->press('Find the cheapest set');
        $b->find(
            '//section[@aria-label="Fixes together"][contains(., "2 fixes")][contains(., "No set of the fixes found costs less")]',
        );
        $b->press('Apply all 2');
        $b->sees('2 fixes made');
    }

    public function test_an_axis_that_stalls_a_piece_that_fits_and_a_place_that_is_too_warm(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $b->open('/builds/2/scope/variants');
        $b->type('Name of the variant', 'Linnet, moving');
        $b->press('Fork this build');
        $b->find('//strong[normalize-space(.)="Linnet, moving"]');
        $build = preg_match('#/builds/(\d+)/#', $b->path(), $m) === 1 ? (int) $m[1] : 0;

        // X stalls at its top speed; slower, it does not. The picker tries the whole library on it.
        $b->open("/builds/{$build}/prove/motion");
        $b->find('//tr[contains(., "accelerates")]//td[contains(@class, "fails")]');
        $b->edit('Top speed of X, across', '60');
        $b->waitUntilGone('//tr[contains(., "accelerates")]//td[contains(@class, "fails")]');
        $b->edit('Motor turns for one of X, across', '0');
        $b->find('//*[@role="alert"][contains(., "from 0.001 to 1000")]');
        $b->key(WebDriverKeys::ESCAPE);
        $b->press('Try the motors of the library');
        $b->find('//tr[contains(., "times")]//button[normalize-space(.)="compare"]');

        $b->press('Stack-up');
        $this->pick($b, 'Workpiece', 'Fretboard');
        $b->find('//tr[contains(., "Y, along")][contains(., "fits")]');
        $b->find('//tr[contains(., "Z motor")]');

        $b->press('Joints');
        $b->find('//tr[contains(., "X motor")][contains(., "Fails")]');
        $b->sees('320 teeth, 640 mm');

        $b->press('Heat');
        $b->edit('Hottest air in Dust cabinet', '48');
        $b->find('//button[contains(., "Spindle clamp")][contains(., "too warm")]');

        $b->press('Place');
        $b->find('//tr[contains(., "upright, narrow end first")][contains(., "too much")]');
        $b->find('//tr[contains(., "on its side")][contains(., "yes")]');
    }
}
