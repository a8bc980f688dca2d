<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Tests\Support\Browser;

/** Plugs that leads end on, slots that feed, and stops that are solved: from a build with nothing in it. */
final class WiringTest extends BrowserTestCase
{
    public function test_a_plug_a_slot_and_a_stop_are_wired_and_judged(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $build = $this->begin($b, 'Plug trial', 'printer');

        // What is there: a supply, a stop, a plug, a bed, a board and a driver.
        $b->open("/builds/{$build}/choose/parts");
        $this->part($b, 'Supply', 'supply', '24 V supply', ['Output voltage' => '24', 'Rated output current' => '20']);
        $this->part($b, 'Stop', 'stop', 'Mushroom stop', [
            'Latches when pressed' => 'yes',
            'Contacts open positively' => 'yes',
            'Contact at rest' => 'closed',
        ]);
        $this->part($b, 'Bed plug', 'plug and socket', 'Plug, 4 way', [
            'Rating of one contact' => '10',
            'Circuits through it' => '2',
            'Ways' => '4',
            'Thickest conductor' => '4',
        ]);
        $this->part($b, 'Bed', 'heater', '288 W bed', ['Rated voltage' => '24', 'Rated power' => '288']);
        $this->part($b, 'Board', 'board', '24 V board', ['Current for itself' => '0.3']);
        $this->part($b, 'X driver', 'driver', 'Driver module', ['Current it takes from its supply' => '0.8']);
        $b->edit('Sits in', 'Board');
        $b->find('//aside//button[@aria-label="Sits in: Board. Edit"]');
        $b->key(WebDriverKeys::ESCAPE);

        // The plug offers as many circuits as its sheet counts; the bed hangs behind one of them.
        $b->press('Prove');
        $b->press('Leads');
        foreach (
            [
                ['Supply · out', 'Bed plug · circuit'],
                ['Bed plug · circuit', 'Bed · power'],
                ['Supply · out', 'Stop · in'],
                ['Stop · out', 'Board · power'],
            ] as $i => [$from, $to]
        ) {
            $b->press('Add a lead');
            $this->choose($b, 'From', $from);
            $this->choose($b, 'To', $to);
            $b->click('//form//button[normalize-space(.)="Add"]');
            $b->find('//aside//h2[contains(., "Lead W'.($i + 1).'")]');
            $b->edit('Conductor size', '2.5 mm²');
            $b->find('//aside//button[@aria-label="Conductor size: 2.5 mm². Edit"]');
            $b->key(WebDriverKeys::ESCAPE);
        }

        // Twelve amps through one contact of ten.
        $b->press('Fit');
        $b->find('//tr[contains(., "E27") and contains(., "12") and contains(., "overheats")]');

        // The driver has no lead, and is fed through its slot; the stop stops it and leaves the bed.
        $b->open("/builds/{$build}/prove/stops");
        $b->find('//tr[th[contains(., "Running")]][td[normalize-space(.)="live"]]');
        $row = str_replace("\u{a0}", ' ', $b->text('//tr[th[starts-with(normalize-space(.), "Stop pressed")]]'));
        self::assertSame('Stop pressed the main one off live down lost none', $row);
        self::assertSame(
            'Stop released again no command live down lost none',
            str_replace("\u{a0}", ' ', $b->text('//tr[th[contains(., "released again")]]')),
            'The board comes back without its program: the driver waits for it.',
        );
        self::assertSame([], $b->barriers());

        // The steps follow from what was drawn: each part and each lead once, and a lead after both its ends.
        $b->open("/builds/{$build}/build/bench");
        $b->press('Steps from the model');
        $b->find('//tr[contains(., "Run W2: Bed plug to Bed")]');
        $b->press('Take ');
        $b->sees('The steps follow the model now');
        $b->waitUntilGone('//main//button[starts-with(normalize-space(.), "Take ")]');
        self::assertSame([], $b->barriers());
        $b->press('Bench');
        $b->click('//a[contains(., "Run W2: Bed plug to Bed")]');
        $b->press('Done');
        $b->sees('“Fit Bed” comes first');
        $b->type('Why it goes on without', 'only to try its length');
        $b->press('Mark as done anyway');
        $b->open("/builds/{$build}/build/bench");
        $b->click('//a[contains(., "Run W2: Bed plug to Bed")]');
        $b->sees('Done all the same: only to try its length');
    }

    /**
     * A need with a part of one's own, and what its sheet says.
     *
     * @param  array<string, string>  $values
     */
    private function part(Browser $b, string $role, string $family, string $name, array $values): void
    {
        $b->press('Add a part');
        $b->type('What it is for', $role);
        $this->choose($b, 'Kind of part', $family);
        $b->type('Part, or words and figures of it', $name);
        $b->click('//form//button[normalize-space(.)="Add as typed"]');
        $b->find('//aside//h2[contains(., '.Browser::quote($role).')]');
        foreach ($values as $label => $value) {
            $b->edit($label, $value);
            $b->find('//aside//button[starts-with(@aria-label, '.Browser::quote("{$label}: {$value}").')]');
        }
        if ($role !== 'X driver') {
            $b->key(WebDriverKeys::ESCAPE);
        }
    }
}
