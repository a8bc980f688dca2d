<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Support\Browser;

/** A whole build by the keyboard alone: begun, parts from the library, leads, a value, its verdicts, and one undo. */
final class KeyboardTest extends BrowserTestCase
{
    public function test_a_build_is_made_wired_and_judged_without_a_pointer(): void
    {
        $b = $this->browser();
        $b->open('/sign-in');
        $b->sees('Enter the demo workshop');
        $b->tabTo('//button[contains(., "Enter the demo workshop")]');
        $b->keys(WebDriverKeys::ENTER);
        $b->sees('Thistle Quay Workshop');

        $b->tabTo('//button[normalize-space(.)="New build"]');
        $b->keys(WebDriverKeys::ENTER);
        $b->find('//input[@id=//label[normalize-space(.)="Name"]/@for]');
        $b->tabTo('//input[@id=//label[normalize-space(.)="Name"]/@for]');
        $b->keys('By keys alone');
        $b->tabTo('//input[@id=//label[normalize-space(.)="Kind of machine"]/@for]');
        $b->keys('printer');
        $b->tabTo('//form//button[normalize-space(.)="Begin"]');
        $b->keys(WebDriverKeys::ENTER);
        $b->sees('What comes next');

        // The finder leads anywhere.
        $this->findAction($b, 'Add a part');
        $b->find('//section[@aria-label="In the library"] | //input[@id=//label[contains(., "words and figures")]/@for]');

        foreach (['24 V supply' => 'supply', '24 V controller board' => 'board', 'fan 24 V' => 'fan'] as $words => $kind) {
            $b->tabTo('//input[@id=//label[contains(., "words and figures")]/@for]');
            $b->keys(WebDriverKeys::CONTROL.'a', $words);
            $b->find('//section[@aria-label="In the library"]//button');
            usleep(400_000);
            $b->tabTo('//section[@aria-label="In the library"]//button[1]');
            $b->keys(WebDriverKeys::ENTER);
            $b->find('//aside//h2');
            // The part stands beside with the focus in it; Escape closes it and gives the focus back.
            self::assertTrue(
                $b->driver->executeScript('return document.querySelector("aside")?.contains(document.activeElement)'),
                "The panel of the {$kind} has the focus.",
            );
            $b->keys(WebDriverKeys::ESCAPE);
            $b->waitUntilGone('//aside');
            $b->driver->executeScript('window.scrollTo(0, 0)');
        }
        $b->find('//h1[normalize-space(.)="Parts"]/following-sibling::*[contains(., "3 needs")]');

        // The rows are walked by the arrows, and a cell is edited where it stands.
        $b->tabTo('//tbody//button[contains(@class, "open")] | //tbody//button | //tbody//input[@type="checkbox"]');
        $first = $b->driver->executeScript('return document.activeElement.closest("tr").rowIndex');
        $b->keys(WebDriverKeys::ARROW_DOWN);
        self::assertSame($first + 1, $b->driver->executeScript('return document.activeElement.closest("tr").rowIndex'));

        $this->findAction($b, 'Propose leads');
        $b->find('//form[@aria-label="Proposed leads"]//input[starts-with(@aria-label, "Length in mm")]');
        $b->tabTo('//form[@aria-label="Proposed leads"]//input[starts-with(@aria-label, "Length in mm")]');
        $b->keys('400');
        $b->tabTo('//form[@aria-label="Proposed leads"]//button[starts-with(normalize-space(.), "Add ")]');
        $b->keys(WebDriverKeys::ENTER);
        $b->find('//table//tbody/tr[@data-ref]');
        $b->find('//tr[@data-ref][contains(., "400")]');
        $leads = count($b->driver->findElements(WebDriverBy::xpath('//table//tbody/tr[@data-ref]')));

        // What was done is read out, and undone by one key.
        self::assertStringContainsString(
            'Stored: Add ',
            (string) $b->driver->executeScript(
                'return [...document.querySelectorAll("[role=status]")].map((e) => e.textContent).join(" ")',
            ),
        );
        $b->key('3');
        $b->sees('worst consequence first');
        self::assertGreaterThan(0, $leads);
        $b->key('u');
        $b->sees('Undone: Add ');
    }

    private function findAction(Browser $b, string $title): void
    {
        $b->key('f');
        $b->find('//input[@role="combobox"][contains(@aria-label, "Find an action")]');
        // The field takes the focus a moment after it shows.
        usleep(300_000);
        $b->keys(mb_strtolower($title));
        $b->find("//*[@role=\"option\"][@aria-selected=\"true\"][contains(., \"{$title}\")]");
        $b->keys(WebDriverKeys::ENTER);
    }
}
