<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use Tests\Support\BrokenBuild;
use Tests\Support\Browser;
use Tests\Support\HttpClient;

/** Bad days at the screen: a build that cannot be read, a colleague in between, a machine that is slow. */
final class SafetyTest extends BrowserTestCase
{
    private function client(): HttpClient
    {
        $client = new HttpClient((string) getenv('MAGPIE_URL'));
        $client->post('/api/session/demo');

        return $client;
    }

    public function test_a_build_that_cannot_be_read_opens_for_repair_and_is_mended(): void
    {
        $client = $this->client();
        $build = BrokenBuild::copy($client, 'Broken wing');
        BrokenBuild::break($build);
        $b = $this->browser();
        $this->enter($b);
        $b->sees('Broken wing');
        $b->sees('Linnet');
        $b->open("/builds/{$build}/prove/fit");
        $b->sees('This build cannot be read');
        $b->sees('"no_such_family" is not a family of parts known here');
        $b->find("//a[@href=\"/api/builds/{$build}/file\"]");
        self::assertSame([], $b->barriers());

        // What is still wrong is named and stays typed; what is right is stored, and the build is back.
        $entry = $b->find('//textarea[@aria-label="The entry as it is kept"]');
        $typed = (string) $entry->getAttribute('value');
        $write = static fn (string $text) => $b->driver->executeScript(
            'const t = arguments[0]; t.value = arguments[1]; t.dispatchEvent(new Event("input"))',
            [$entry, $text],
        );
        $write(str_replace('no_such_family', 'neither', $typed));
        $b->press('Store the entry');
        $b->sees('"neither" is not a family');
        $write(str_replace('no_such_family', 'belt', $typed));
        $b->press('Store the entry');
        $b->sees('worst consequence first');

        // Undo does not break it again: what would leave it unreadable stays, and is named.
        $b->key('u');
        $b->sees('Left as it is: needs belt');
        $b->sees('worst consequence first');
        $client->send('DELETE', "/api/builds/{$build}");
    }

    public function test_undo_says_what_a_colleague_has_gone_on_with(): void
    {
        $client = $this->client();
        $build = BrokenBuild::copy($client, 'Two hands');
        $b = $this->browser();
        $this->enter($b);
        $b->open("/builds/{$build}/prove/leads");
        $b->edit('Length of W4', '2.2 m');
        $b->find('//button[@aria-label="Length of W4: 2.2 m. Edit"]');
        $b->holds('Stored: Length of W4');
        $client->post("/api/builds/{$build}/edits", [
            'key' => '22222222-2222-4222-8222-222222222222',
            'label' => 'A colleague',
            'changes' => [['section' => 'leads', 'ref' => 'W4', 'set' => [['path' => ['length'], 'to' => '3 m']]]],
        ]);
        $client->post("/api/builds/{$build}/undo");
        $client->post("/api/builds/{$build}/redo");
        BrokenBuild::behindItsBack(
            "UPDATE edits SET user_id = (SELECT MAX(user_id) FROM memberships) WHERE build_id = {$build} AND label = 'A colleague'",
        );
        $b->key('u');
        $b->sees('Left as it is: leads W4 (length was changed since)');
        $client->send('DELETE', "/api/builds/{$build}");
    }

    public function test_the_next_cell_opens_while_the_last_one_is_stored_on_a_slow_machine(): void
    {
        $client = $this->client();
        $build = BrokenBuild::copy($client, 'Slow evening');
        $b = $this->browser();
        $this->enter($b);
        $b->open("/builds/{$build}/prove/leads");
        $b->find('//button[starts-with(@aria-label, "Length of W1: ")]');
        $b->slow(6);
        foreach (['W1', 'W2', 'W3', 'W4', 'W6'] as $i => $lead) {
            $b->click('//button[starts-with(@aria-label, '.Browser::quote("Length of {$lead}: ").')]');
            $b->find('//input[@aria-label="Length of '.$lead.'"]')
                ->sendKeys([WebDriverKeys::CONTROL, 'a'])
                ->sendKeys("1.{$i}5 m");
            // Pressed down on the next cell, and let go only once the first has been answered: nothing moved under the
            // pointer.
            $next = $b->find('//button[starts-with(@aria-label, '.Browser::quote("Size of {$lead}: ").')]');
            (new WebDriverActions($b->driver))->moveToElement($next)->clickAndHold($next)->perform();
            usleep(900_000);
            (new WebDriverActions($b->driver))->release()->perform();
            $b->find('//*[self::input or self::select][@aria-label="Size of '.$lead.'"]');
            $b->driver->getKeyboard()->sendKeys(WebDriverKeys::ESCAPE);
            $b->find('//button[@aria-label="Length of '.$lead.": 1.{$i}5 m. Edit\"]");
            $b->find('//button[starts-with(@aria-label, '.Browser::quote("Size of {$lead}: ").')]');
        }
        $b->slow(1);
        $lengths = array_column($client->get("/api/builds/{$build}")['document']['leads'], 'length', 'ref');
        self::assertSame(
            ['1.05 m', '1.15 m', '1.25 m', '1.35 m', '1.45 m'],
            array_map(static fn (string $l): string => $lengths[$l], ['W1', 'W2', 'W3', 'W4', 'W6']),
        );
        $client->send('DELETE', "/api/builds/{$build}");
    }

    public function test_the_account_everybody_uses_is_changed_by_nobody(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $b->press('Account');
        $b->sees('everybody knows their password');
        foreach (['another password', 'another name', 'turn it on', 'Make a token'] as $act) {
            self::assertCount(
                0,
                $b->driver->findElements(WebDriverBy::xpath("//button[normalize-space(.)='{$act}']")),
                $act,
            );
        }
    }

    /** A reload while typing loses nothing, and what was open beside one build is not beside the next. */
    public function test_what_is_typed_survives_a_reload_and_a_panel_belongs_to_its_build(): void
    {
        $client = $this->client();
        $builds = array_column($client->get('/api/builds')[0]['builds'], 'id', 'name');
        $b = $this->browser();
        $this->enter($b);
        $b->open("/builds/{$builds['Dunlin']}/prove/fit");
        $b->sees('worst consequence first');
        $b->key('l');
        $b->type('What is wrong', 'The bed lead rubs at the corner');
        $b->driver->navigate()->refresh();
        $b->sees('before the page was loaded again is kept');
        $b->key('l');
        $b->find('//textarea');
        $fill = 'const all = [...document.querySelectorAll("textarea")]; all.forEach((t) => t.focus()); return all.map((t) => t.value).join("|")';
        self::assertStringContainsString('The bed lead rubs at the corner', (string) $b->driver->executeScript($fill));
        $b->key(WebDriverKeys::ESCAPE);

        $b->go("/builds/{$builds['Dunlin']}/choose/parts");
        $b->press('24 V controller board, 5 drivers');
        $b->find('//aside');
        $b->click('//a[@title="All builds"]');
        $b->click('//a[contains(@href, "/builds/'.$builds['Linnet'].'")]');
        $b->find('//strong[contains(@class, "name")][.="Linnet"]');
        self::assertSame([], $b->driver->findElements(WebDriverBy::xpath('//aside')));
    }
}
