<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Tests\Support\HttpClient;

/** From a list of parts with prices to everything on the bench: what to order, where, what came and what is good. */
final class BuyTest extends BrowserTestCase
{
    public function test_from_a_list_to_the_bench(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $build = $this->begin($b, 'Order trial', 'printer');

        // Nothing to order yet, and the page leads to what comes first.
        $b->open("/builds/{$build}/buy/basket");
        $b->sees('There is nothing to order before there are parts.');
        $b->open("/builds/{$build}/buy/orders");
        $b->sees('Nothing was ordered yet.');
        $b->open("/builds/{$build}/choose/import");
        $b->sees('A list with a line of headings');
        $b->attach('//input[@type="file"]', __DIR__.'/parts-list.csv');
        $b->press('Store 10 parts');
        $b->sees('10 parts are in the build', 30);

        // What is wanted, and where; what nobody said of shipping is told, and said.
        $b->open("/builds/{$build}/buy/basket");
        $b->find('//tr[contains(., "Cap screw M5")]');
        $b->press('Where to buy it');
        $b->sees('Shipping is not said by');
        $b->press('Money');
        foreach (
            [
                'Two Stoves Electronics' => [['0' => '9.00'], '9.00'],
                // A comma is the decimal one, not the end of a step.
                'Ferry Lane Motion' => [['0' => '4,90'], '4.90'],
                'Cobble Fasteners' => [['0' => '3.20', '60' => '0'], '3.20; from 60.00: 0.00'],
            ] as $who => [$steps, $says]
        ) {
            $b->ship($who, $steps, $says);
        }
        $b->press('Where');
        $b->sees('Proven: no other split of these prices costs less.');
        $b->waitUntilGone('//p[contains(., "Shipping is not said by")]');
        $whole = $b->text('//p[contains(@class, "sum")]/strong');

        // What cannot be had together is named; a limit that is lifted brings back what there was.
        $this->pick($b, 'Most suppliers', '1');
        $b->sees('These cannot be had together: no more than 1 suppliers');
        $this->pick($b, 'Most suppliers', 'any number');
        $b->sees('Proven: no other split of these prices costs less.');
        self::assertSame($whole, $b->text('//p[contains(@class, "sum")]/strong'));

        // One basket becomes an order, and is wanted no more.
        $b->click('(//button[normalize-space(.)="Note as ordered"])[2]');
        $b->sees('are noted as ordered from');
        $b->press('Orders');
        $b->sees('not paid yet');
        $b->press('It is paid');
        $b->sees('is paid; u undoes it.');
        $b->waitUntilGone('//main//button[normalize-space(.)="It is paid"]');

        // More cannot arrive than was ordered; it is said at the field, and what was typed stays.
        $arrived = '(//main//button[starts-with(@aria-label, "Arrived of ")])[1]';
        $label = explode(':', (string) $b->find($arrived)->getAttribute('aria-label'))[0];
        $b->edit($label, '99999');
        $b->sees('99999 cannot have arrived of');
        $b->find("//input[@aria-label='{$label}']")->sendKeys(WebDriverKeys::ESCAPE);

        // What came is tried on the bench: a reading off its claim is told, and a bad piece goes back as a fault.
        $b->press('All of it is here');
        $b->sees('not looked at yet');
        $b->press('Arrivals');
        $motor = '//section[@aria-label="Stepper motor 57 mm frame"]';
        $b->click("{$motor}//button[@aria-expanded]");
        $b->find("{$motor}//li[contains(., 'phases apart')]");
        // What is looked at is kept; what is not good is a fault and a claim at once, with a letter.
        $b->click('//button[@aria-label="Good: carton and labels, Stepper motor 57 mm frame"]');
        $b->find("{$motor}//li[contains(., 'carton and labels')]//*[contains(@class, 'holds')]");
        $b->click('//button[@aria-label="With a picture: signs of use, Stepper motor 57 mm frame"]');
        $b->type('What was found', 'New, in its bag.');
        $b->attach('//input[@aria-label="Pictures of it"]', dirname(__DIR__, 2).'/docs/screenshots/step-phone.png');
        $b->press('It is good');
        $b->find("{$motor}//li[contains(., 'New, in its bag.')]//img");
        $b->edit('Lot of Stepper motor 57 mm frame, '.$this->purchase($build, 'Stepper motor 57 mm frame'), 'L 88');
        $b->click('//button[@aria-label="Not good: phases apart, Stepper motor 57 mm frame"]');
        $b->type('Bad pieces', '99');
        $b->type('What was found', 'One phase is open.');
        $b->press('Not good: claim it');
        $b->sees('that are here, 1 to');
        $b->type('Bad pieces', '1');
        $b->press('Not good: claim it');
        $b->find("{$motor}[contains(., 'Lot L 88: 1 bad')]");
        $b->press('Claims');
        $b->click('//summary[contains(., "The letter")]');
        $b->find('//pre[contains(., "not good on 1: phases apart. One phase is open.") and contains(., "lot L 88")]');
        $b->press('It is sent');
        $b->sees('claim sent');
        self::assertSame([], $b->barriers());
        $b->open("/builds/{$build}/build/faults");
        $b->sees('phases apart. One phase is open.');
        $b->open("/builds/{$build}/buy/arrivals");
        $b->click('//button[@aria-label="One is bad: Stepper motor 57 mm frame"]');
        $b->find("{$motor}[contains(., '1 sent back')]");
        $b->key('u');
        $b->sees('Undone: One of Stepper motor 57 mm frame is bad');
        $b->waitUntilGone("{$motor}[contains(., '1 sent back')]");
        $b->press('Orders');

        // All of it is good but one piece, which goes back and is to be ordered again.
        $b->press('All that came is good');
        $b->waitUntilGone('//main//button[normalize-space(.)="All that came is good"]');
        $name = substr($label, strlen('Arrived of '));
        $good = '//button[starts-with(@aria-label, "Good of '.$name.': ")]';
        $pieces = (int) preg_replace(
            '/\D/',
            '',
            explode(': ', (string) $b->find($good)->getAttribute('aria-label'))[1],
        );
        $b->edit("Sent back of {$name}", '1');
        $b->sees('are more than the');
        $b->find("//input[@aria-label='Sent back of {$name}']")->sendKeys(WebDriverKeys::ESCAPE);
        $b->edit("Good of {$name}", (string) ($pieces - 1));
        $b->find('//button[starts-with(@aria-label, "Good of '.$name.': '.($pieces - 1).'")]');
        $b->edit("Sent back of {$name}", '1');
        $b->find('//button[starts-with(@aria-label, "Sent back of '.$name.': 1")]');
        $b->press('To order');
        $b->find('//tr[contains(., "'.$name.'")]//td[.//strong[normalize-space(.)="1"]]');

        // Each bag has a label whose code opens the part that is in it.
        $b->open("/builds/{$build}/buy/labels");
        $b->press('all parts');
        $b->find('//article[contains(., "'.$name.'")]//img[starts-with(@src, "data:image/png")]');
        $need = array_column($this->needs($build), 'ref', 'role')[$name] ?? '';
        $b->open("/builds/{$build}/choose/parts?part={$need}");
        $b->find('//aside//*[contains(., "'.$name.'")]');
        $b->open("/builds/{$build}/buy/basket");
        $b->find('//tr[contains(., "'.$name.'")]//td[.//strong[normalize-space(.)="1"]]');

        // And it can be undone, step by step.
        $b->key('u');
        $b->sees('Undone: Sent back of');
        $b->waitUntilGone('//tr[contains(., "'.$name.'")]//td[.//strong[normalize-space(.)="1"]]');
    }

    private function purchase(int $build, string $name): string
    {
        $client = new HttpClient((string) getenv('MAGPIE_URL'));
        $client->post('/api/session/demo');
        $document = $client->get("/api/builds/{$build}")['document'];
        $part = array_column($document['parts'], 'ref', 'name')[$name];

        return array_column($document['purchases'], 'ref', 'part')[$part];
    }

    /**
     * @return list<array{ref: string, role: string}>
     */
    private function needs(int $build): array
    {
        $client = new HttpClient((string) getenv('MAGPIE_URL'));
        $client->post('/api/session/demo');

        return $client->get("/api/builds/{$build}")['document']['needs'];
    }
}
