<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use PHPUnit\Framework\TestCase;
use Tests\Support\Browser;

/** A test in a real Chromium against the real server and database; it fails when the page complains on its console. */
abstract class BrowserTestCase extends TestCase
{
    private ?Browser $browser = null;

    protected function browser(int $width = 1280, int $height = 800, ?string $hears = null): Browser
    {
        return $this->browser ??= new Browser((string) getenv('MAGPIE_URL'), $width, $height, $hears);
    }

    protected function tearDown(): void
    {
        $complaints = $this->browser?->complaints() ?? [];
        $this->browser?->quit();
        $this->browser = null;
        self::assertSame([], $complaints, 'The page complained on its console.');
    }

    protected function enter(Browser $b): void
    {
        $b->open('/sign-in');
        $b->press('Enter the demo workshop');
        $b->sees('Thistle Quay Workshop');
    }

    /** Picks from a list of the interface's own. */
    protected function choose(Browser $b, string $label, string $text): void
    {
        $b->click(
            '//label[normalize-space(.)='.
                Browser::quote($label).
                ']/ancestor::*[contains(concat(" ", @class, " "), " v-field ")][1]',
        );
        $b->driver->getKeyboard()->sendKeys($text);
        $b->click(
            '//*[contains(@class, "v-overlay__content")]//*[contains(@class, "v-list-item-title")][normalize-space(.)='.
                Browser::quote($text).
                ']',
        );
    }

    /** Picks from a plain list of the browser's. */
    protected function pick(Browser $b, string $label, string $text): void
    {
        $b->find('//select[@aria-label='.Browser::quote($label).']')
            ->findElement(WebDriverBy::xpath('.//option[normalize-space(.)='.Browser::quote($text).']'))
            ->click();
    }

    /** Starts a build of its own and returns its number. */
    protected function begin(Browser $b, string $name, string $kind): int
    {
        $b->open('/');
        $b->press('New build');
        $b->type('Name', $name);
        $b->type('Kind of machine', $kind);
        $b->click('//form//button[normalize-space(.)="Begin"]');
        $b->sees('What comes next');
        $build = preg_match('#/builds/(\d+)/#', $b->path(), $m) === 1 ? (int) $m[1] : 0;
        $b->open("/builds/{$build}/prove/fit");
        $b->sees('Nothing to judge yet');

        return $build;
    }
}
