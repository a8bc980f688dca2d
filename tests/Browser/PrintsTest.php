<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;

/** A printed part from its file to a weighed batch, from a build with nothing in it. */
final class PrintsTest extends BrowserTestCase
{
    public function test_from_a_file_to_a_weighed_batch(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $build = $this->begin($b, 'Print trial', 'printer');

        $b->open("/builds/{$build}/buy/prints");
        $b->sees('Nothing of this build is printed.');
        $b->press('Add a part');
        $b->type('What it is for', 'Feet');
        $this->choose($b, 'Kind of part', 'printed part');
        $b->type('Part, or words and figures of it', 'Foot');
        $b->click('//form//button[normalize-space(.)="Add as typed"]');
        $b->find('//aside//h2[contains(., "Feet")]');
        $b->edit('Material', 'ASA');
        $b->find('//aside//button[starts-with(@aria-label, "Material: ASA")]');

        // Its file says how large it is and what it encloses; walls and infill are the builder's.
        $b->attach('//aside//input[@type="file"]', __DIR__.'/cube.stl');
        $b->sees('12 triangles');
        $b->press('Take these');
        $b->find('//aside//button[starts-with(@aria-label, "Volume: 8 cm³")]');
        foreach (['Walls' => '4', 'Infill' => '40'] as $label => $value) {
            $b->edit($label, $value);
            $b->find('//aside//button[starts-with(@aria-label, "'.$label.': '.$value.'")]');
        }
        $b->key(WebDriverKeys::ESCAPE);

        // Nothing prints it yet, and what is missing is said until it is there.
        $b->open("/builds/{$build}/buy/prints");
        $b->sees('no printer is noted that prints it');
        $b->type('A further printer', 'Shed printer');
        $b->press('Add printer');
        $b->sees('its print time is not said, nor the flow of Shed printer');
        $b->edit('Flow of Shed printer', '4');
        $b->find('//section[@aria-label="Shed printer"]//em[contains(., "fit piece in ASA")]');
        $b->sees('that it fits, since the size of Shed printer is not said');
        foreach (['Length' => '200', 'Width' => '200', 'Height' => '10'] as $side => $size) {
            $b->edit("{$side} of Shed printer", $size);
            $b->find('//button[starts-with(@aria-label, "'.$side.' of Shed printer: '.$size.' mm")]');
        }
        $b->sees('it does not stand in Shed printer');
        $b->edit('Height of Shed printer', '200');
        $b->click('//input[@aria-label="Shed printer prints ASA"]');
        $b->waitUntilGone('//*[contains(., "that Shed printer prints ASA")]');
        $b->find('//section[@aria-label="Reels"]//tr[contains(., "ASA")]');

        // A batch comes off; one that weighs too little says so, and a reel goes on the list.
        $b->click('//button[@aria-label="Printed: Foot"]');
        $b->type('One of them weighs', '4');
        $b->click('//form//button[normalize-space(.)="Store"]');
        $b->sees('thin: look at all of this print');
        $b->find('//section[@aria-label="What came off"]//tr[contains(., "Foot")]');
        $b->edit('Failed of Foot', '1');
        $b->edit('Good of Foot', '0');
        $b->find('//button[@aria-label="Printed: Foot"]');
        $b->click('//button[@aria-label="Put it on the list: ASA"]');
        $b->sees('ASA filament is on the list of what to order');
        $b->press('To order');
        $b->find('//tr[contains(., "ASA filament")]//strong[normalize-space(.)="1"]');
        self::assertSame([], $b->barriers());
        $b->key('u');
        $b->waitUntilGone('//tr[contains(., "ASA filament")]');
    }
}
