<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** From an empty build to a machine that is laid out: placed, moved, swept into its neighbour, mended, and a lead that got its length. */
final class PictureTest extends BrowserTestCase
{
    public function test_from_an_outline_to_a_sweep_that_meets_nothing(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $build = $this->begin($b, 'Picture trial', 'router');

        // From nothing at all it says what comes first.
        $b->open("/builds/{$build}/prove/picture");
        $b->sees('Nothing has a place yet.');
        $b->open("/builds/{$build}/scope/brief");
        $b->type('A further direction', 'X');
        $b->click('//form[.//input[@aria-label="A further direction"]]//button');
        $b->edit('Length of X to begin with', '300 mm');
        $b->edit('What the length of X rests on', 'measured');
        $b->find('//button[contains(@aria-label, "What the length of X rests on")][contains(., "measured")]');

        $b->open("/builds/{$build}/prove/picture");
        $b->type('What else', 'Head');
        $b->press('Give it a place');
        $b->sees('its length and width and height are not known');
        foreach (['length' => '100 mm', 'width' => '100 mm', 'height' => '80 mm'] as $side => $size) {
            $b->edit("Its {$side}", $size);
        }
        $b->find('//*[@role="button"][@aria-label="Head"]');
        // A slip is said where it is typed, and stays typed.
        $b->edit('Distance along x', 'five');
        $b->find('//*[@role="alert"][contains(., "five")]');
        $b->keys(WebDriverKeys::ESCAPE);
        $b->edit('Distance along x', '50 mm');
        // Pressed again before the first is stored, both count.
        $b->click('//button[@aria-label="x + 10 mm"]');
        $b->click('//button[@aria-label="x + 1 mm"]');
        $b->click('//button[@aria-label="x − 1 mm"]');
        $b->sees('x 60 to 160');
        $b->click('//section[@aria-label="Place of Head"]//label[contains(., "X")]/input');

        $b->press('back to the list');
        $b->type('What else', 'Post');
        $b->press('Give it a place');
        foreach (['length' => '40 mm', 'width' => '40 mm', 'height' => '200 mm'] as $side => $size) {
            $b->edit("Its {$side}", $size);
        }
        $this->pick($b, 'Told from, along x', 'Head');
        // Picked before the first is stored: both count.
        $this->pick($b, 'How it is placed along x', 'right of');
        $b->edit('Distance along x', '200 mm');
        // 200 mm to go, and X goes 300: it is found, and where.
        $b->find('//section[@aria-label="What follows"]//*[contains(., "Head meets Post")]');
        $b->sees('nothing meets here; elsewhere in the travel it does');
        $b->press('sweep all together');
        $b->find('//*[@role="status"][contains(., "Head meets Post")]', 20);
        $b->find('//*[contains(@class, "meets")][@aria-label="Post"]');
        $b->click('//button[normalize-space(.)="stop"]');
        $b->find('//button[normalize-space(.)="sweep all together"]');
        self::assertSame([], $b->barriers());

        // Put farther away, it is free.
        $b->edit('Distance along x', '350 mm');
        $b->find('//button[starts-with(@aria-label, "Distance along x: 350")]');
        $b->waitUntilGone('//section[@aria-label="What follows"]//*[contains(., "Head meets Post")]');
        foreach (['Front', 'Side', 'Plan'] as $look) {
            $b->click("//button[@aria-pressed][normalize-space(.)='{$look}']");
            $b->find('//*[@role="button"][@aria-label="Post"]');
        }
        $b->press('In space');
        $b->find('//canvas[contains(@aria-label, "in space")] | //p[contains(., "cannot draw in space")]');
        $b->press('take it off its place');
        $b->waitUntilGone('//*[@aria-label="Place of Post"]');
        self::assertSame([], $b->complaints());
    }
}
