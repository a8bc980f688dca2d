<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Support\Browser;

/** The first hour: a starter, what comes next, a part from the shelf, and a value asked about before it is stored. */
final class FirstHourTest extends BrowserTestCase
{
    public function test_from_a_starter_to_a_judged_build_in_six_actions(): void
    {
        $b = $this->browser();
        $this->enter($b);

        // One to five: a new build, what it begins with, its name, begin, and what is to be looked at.
        $this->beginFrom($b, 'Router', 'Bench router');
        $b->find('//section[@aria-label="What comes next"]//a[contains(., "Put your own part in")]');
        $b->press('Prove');
        $b->sees('worst consequence first');
        $b->find('//tr[contains(., "Not known well enough")]');

        // What can only be told later is not asked before; what is done ticks itself off.
        $b->click('//button[contains(., "can be told later")]');
        $b->find('//section[@aria-label="Later"]//li[contains(., "Settings")][contains(., "under power")]');
        $b->press('Scope');
        $b->type('A further workpiece', 'Sign');
        $b->click('//form[.//input[@aria-label="A further workpiece"]]//button');
        $b->find(
            '//section[@aria-label="What comes next"]//li[contains(., "Say what it must make")][contains(@class, "done")]',
        );

        // A part of the library is in the build in two actions.
        $b->press('Choose');
        $b->press('Library');
        $b->type('Words and figures of the part', 'lamp, 24 V');
        $b->find('//*[@role="status"][contains(., "with about 24")]');
        $b->click('(//*[@role="listitem"]//button[starts-with(@aria-label, "Add to build: ")])[1]');
        $b->sees('is in the build.');
        // What it wants of leads is told beside: this machine has a supply of 48 V only.
        $b->find('//aside//form[@aria-label="Proposed leads"][contains(., "no supply has a voltage it stands")]');
        $b->key(WebDriverKeys::ESCAPE);

        // A size nobody has seen is asked about before it is stored.
        $b->press('Parts');
        $b->click('//button[contains(@class, "open")][contains(., "Bed") or contains(., "Spindle, yours")]');
        $b->edit('Rated power', '900');
        $b->find('//aside//button[starts-with(@aria-label, "Rated power: 900 W")]');
        $b->edit('Rated power', '900 kW');
        $b->sees('unusually large');
        $b->press('Leave it as it was');
        $b->find('//aside//button[starts-with(@aria-label, "Rated power: 900 W")]');
        $b->edit('Rated power', '900 kW');
        $b->press('It is right, keep it');
        $b->find('//aside//button[starts-with(@aria-label, "Rated power: 900 kW")]');
        $b->key(WebDriverKeys::ESCAPE);
    }

    public function test_all_leads_of_a_router_are_laid_in_few_actions(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $this->beginFrom($b, 'Router', 'Router to wire');
        $b->press('Prove');
        $b->press('Leads');
        $b->sees('leads, from source to load');
        $rows = static fn (): int => count($b->driver->findElements(WebDriverBy::xpath('//table//tbody/tr[@data-ref]')));
        $before = $rows();
        self::assertGreaterThanOrEqual(20, $before);

        // Three actions: its leads are gone, and one undo would bring them back.
        $b->click('//input[@aria-label="Pick all leads"]');
        $b->press('Delete');
        $b->sees('gone');
        $b->waitUntilGone('//table//tbody/tr[@data-ref]');
        $b->key('u');
        $b->find("//table//tbody/tr[@data-ref][{$before}]");
        $b->key('r');
        $b->waitUntilGone('//table//tbody/tr[@data-ref]');

        // Laid again: what is proposed, a length for each, and one press to store them.
        $actions = 1;
        $b->press('Propose leads');
        $b->find('//form[@aria-label="Proposed leads"]//tbody/tr');
        $lengths = $b->driver->findElements(
            WebDriverBy::xpath('//form[@aria-label="Proposed leads"]//input[starts-with(@aria-label, "Length in mm")]'),
        );
        $proposed = count($lengths);
        self::assertGreaterThanOrEqual(0.75 * $before, $proposed, 'Most of what was deleted is proposed again.');
        foreach ($lengths as $i => $length) {
            $length->sendKeys((string) (300 + 10 * $i));
            $actions++;
        }
        $b->click('//form[@aria-label="Proposed leads"]//button[contains(., "Add ")]');
        $actions++;
        $b->find("//table//tbody/tr[@data-ref][{$proposed}]");
        self::assertLessThanOrEqual(60 * $proposed / 23, $actions);
        $b->find('//tr[@data-ref][contains(., "310")]');
        $b->press('Fit');
        $b->sees('worst consequence first');
        self::assertSame([], $b->driver->findElements(WebDriverBy::xpath('//tr[contains(., "Danger")][contains(., "E0")]')));
    }

    public function test_a_router_of_forty_parts_is_made_from_nothing_in_250_actions(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $this->begin($b, 'Router from nothing', 'router');
        $actions = 4;
        $b->press('Choose');
        $b->press('Add a part');
        $actions += 2;
        foreach (
            [
                'mains inlet 10 A, fuse and switch' => 1,
                '24 V supply 150 W' => 1,
                '48 V supply 600 W' => 1,
                '24 V motion controller' => 1,
                'stop button, mushroom' => 1,
                'boxed, 50 V, 4.2 A' => 3,
                'frame 23 stepper, 76 mm' => 3,
                'ball screw 16' => 3,
                'coupling, jaw, 6.35 to 10' => 3,
                'stop switch, roller' => 6,
                'rail 15 mm' => 6,
                '48 V spindle, 400 W' => 1,
                'relay, contactor, 24 V coil' => 1,
                'end mill 6 mm, 2 flutes' => 1,
                'steel cabinet' => 1,
                '24 V fan, 80 mm' => 1,
                'terminal row' => 1,
                'cable chain, 18' => 2,
                'fuse, blade' => 2,
                'aluminium plate' => 1,
            ] as $words => $pieces
        ) {
            for ($i = 0; $i < $pieces; $i++) {
                $b->type('Part, or words and figures of it', $words);
                $b->click('(//section[@aria-label="In the library"]//button)[1][not(@disabled)]');
                $b->find('//aside//h2');
                $b->waitUntilGone('//section[@aria-label="In the library"]//button');
                $actions += 2;
            }
        }
        $b->find('//h1[normalize-space(.)="Parts"]/following-sibling::*[contains(., "40 needs")]');

        $b->press('Prove');
        $b->press('Leads');
        $b->press('Propose leads');
        $actions += 3;
        $b->find('//form[@aria-label="Proposed leads"]//tbody/tr');
        $lengths = $b->driver->findElements(
            WebDriverBy::xpath('//form[@aria-label="Proposed leads"]//input[starts-with(@aria-label, "Length in mm")]'),
        );
        foreach ($lengths as $length) {
            $length->sendKeys('600');
            $actions++;
        }
        $b->click('//form[@aria-label="Proposed leads"]//button[contains(., "Add ")]');
        $actions++;
        $b->find('//table//tbody/tr[@data-ref]['.count($lengths).']');
        $b->press('Scope');
        $b->find('//section[@aria-label="What comes next"]//li[contains(., "Every part that takes power is fed")]');
        self::assertGreaterThanOrEqual(20, count($lengths));
        self::assertLessThanOrEqual(250, $actions);
    }

    public function test_leads_are_typed_one_a_line(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $this->beginFrom($b, 'Pen plotter', 'Line plotter');
        $b->press('Prove');
        $b->press('Leads');
        $b->sees('leads, from source to load');
        $leads = count($b->driver->findElements(WebDriverBy::xpath('//tbody/tr')));

        $b->type('A lead in one line', 'psu.out > board 1mm2'.WebDriverKeys::ENTER);
        $b->sees('“board” is no port');
        $b->type('A lead in one line', 'psu.out > nothing.here 1mm2'.WebDriverKeys::ENTER);
        $b->find('//p[@role="alert"][contains(., "nothing")]');
        $b->type('A lead in one line', 'psu.out > board.power 2.5mm2 350mm ferrules fixed'.WebDriverKeys::ENTER);
        $b->find('//tbody/tr['.($leads + 1).'][contains(., "2.5")][contains(., "350")]');
        $b->type('A lead in one line', 'psu.out > board.power 2,5 mm2 0.4 m'.WebDriverKeys::ENTER);
        $b->find('//tbody/tr['.($leads + 2).'][contains(., "0.4")]');
    }

    /** Begins a build from a starter: what it begins with, its name, begin. */
    private function beginFrom(Browser $b, string $starter, string $name): void
    {
        $b->press('New build');
        // Picked, not typed: the dialog goes to the name as it opens, and would take letters with it.
        $b->find("//select[@aria-label=\"Begin with\"]/option[starts-with(normalize-space(.), \"{$starter}:\")]")->click();
        $b->sees('until you put your own in its place');
        $b->type('Name', $name);
        $b->click('//form//button[normalize-space(.)="Begin"]');
        $b->sees('What comes next');
    }
}
