<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverKeys;
use Magpie\Core\Simulation\Wav;

/** From a heater on the list to a machine in use, from a build with nothing in it; and a belt heard by the microphone. */
final class RunTest extends BrowserTestCase
{
    public function test_from_the_first_reading_to_the_book(): void
    {
        $b = $this->browser();
        $this->enter($b);
        $build = $this->begin($b, 'Run trial', 'printer');

        // Nothing is fitted: there is little to look at, and nothing to measure.
        $b->open("/builds/{$build}/run/readings");
        $b->sees('Nothing is measured yet.');
        $b->open("/builds/{$build}/choose/parts");
        $b->press('Add a part');
        $b->type('What it is for', 'Bed');
        $this->choose($b, 'Kind of part', 'heater');
        $b->type('Part, or words and figures of it', 'Mat');
        $b->click('//form//button[normalize-space(.)="Add as typed"]');
        $b->find('//aside//h2[contains(., "Bed")]');
        foreach (['Rated power' => '75 W', 'Rated voltage' => '24 V'] as $label => $value) {
            $b->edit($label, $value);
            $b->find('//aside//button[starts-with(@aria-label, "'.$label.': '.$value.'")]');
        }
        $b->key(WebDriverKeys::ESCAPE);

        // The ladder follows from the heater: what the meter should show, and what another figure points to.
        $b->open("/builds/{$build}/run/ladder");
        $b->sees('Look at it, the plug in your hand');
        foreach (['Each plug is in its socket', 'No tool, screw, swarf'] as $look) {
            $b->click("//label[contains(., \"{$look}\")]/input");
            $b->waitUntilGone("//label[contains(., \"{$look}\")]/input[@disabled]");
        }
        $b->find('//article[contains(@class, "passed")]//strong[contains(., "Look at it")]');
        $b->find('//article//button[@aria-expanded="true"][contains(., "Measure it, unplugged")]');
        $b->sees('6.91 Ω to 8.45 Ω');
        $b->type('Reading of Resistance of Bed', 'fifteen');
        $b->press('Store');
        $b->find('//*[@role="alert"][contains(., "fifteen")]');
        $b->type('Reading of Resistance of Bed', '15.4');
        $b->press('Store');
        $b->sees('Twice as much: one element of two');
        $b->find('//article[contains(@class, "out-of-band")]');
        $b->type('Reading of Resistance of Bed', '7.7 Ω');
        $b->press('Store');
        $b->waitUntilGone('//article[contains(@class, "out-of-band")]');
        $b->find('//article//*[contains(@class, "holds")][contains(., "Holds")]');
        // One rung is passed with a reason, and says so.
        $b->press('Pass it with a reason');
        $b->type('Why it is passed all the same', 'there is no rail yet');
        $b->click('//form//button[normalize-space(.)="Pass"]');
        $b->click('//article[contains(@class, "waived")]//button[contains(., "Measure it")]');
        $b->find('//article[contains(@class, "waived")]//*[contains(., "there is no rail yet")]');
        self::assertSame([], $b->barriers());

        $b->open("/builds/{$build}/run/readings");
        $b->find('//tr[contains(., "15.4 Ω")]');
        $b->click('//tr[contains(., "15.4 Ω")]//button');
        $b->type('Why it does not count', 'the meter stood on the wrong range');
        $b->press('Strike it');
        $b->find('//tr[contains(@class, "struck")][contains(., "wrong range")]');

        // A frame by its diagonals: what cannot be worked is said at its field, and nothing typed is lost.
        $b->open("/builds/{$build}/run/straight");
        $this->pick($b, 'What was measured', 'Frame or gantry by its diagonals');
        foreach (
            ['a' => '1000 mm', 'b' => '750 mm', 'd1' => '1251', 'd2' => '1249 mm', 'limit' => '0.5 mm'] as $key => $text
        ) {
            $b->find("//input[@id='ask-{$key}']")->sendKeys($text);
        }
        $b->press('Work it out');
        $b->sees('has no unit');
        $b->find("//input[@id='ask-d1']")->sendKeys(' mm');
        $b->press('Work it out');
        $b->find('//section[@aria-label="What it comes to"]//dd[contains(., "0.0955 °")]');
        $b->press('Keep it');
        $b->find('//table//tr[contains(., "Frame or gantry")][contains(., "Fails")]');

        // A job makes hours; upkeep is due by them.
        $b->open("/builds/{$build}/run/jobs");
        $b->sees('Choose a program');
        $b->attach('//input[@aria-label="A program"]', __DIR__.'/first.nc');
        $b->sees('The spindle is switched on with no speed in force.');
        $b->type('Name of the job', 'Stand');
        $b->type('Time it ran', '12 h');
        $b->click('//form//button[normalize-space(.)="Log"]');
        $b->find('//table//tr[contains(., "Stand")][contains(., "12 h")]');
        $b->open("/builds/{$build}/run/upkeep");
        $b->sees('Tighten moving joints and power terminals, due');
        $b->click('//tr[contains(., "Tighten moving joints")]//button');
        $b->type('What was found', 'one loose terminal');
        $b->press('Store');
        $b->find('//tr[contains(., "one loose terminal")][not(contains(., ", due"))]');

        // All of it is in the book, and the next of its kind begins without it.
        $b->open("/builds/{$build}/run/book");
        $b->sees('Not signed off');
        $b->find('//section[@aria-label="Readings"]//tr[contains(., "7.7 Ω")][contains(., "counts")]');
        $b->find('//section[@aria-label="Waived, with the reason"]//tr[contains(., "there is no rail yet")]');
        // On paper it is made in the background, and is there when one comes back.
        $b->press('Print it (PDF)');
        $b->sees('The book as PDF');
        $b->open("/builds/{$build}/run/jobs");
        $b->open("/builds/{$build}/run/book");
        $b->sees('The book as PDF');
        self::assertSame([], $b->barriers());
        $b->type('Name of the next one', 'Run trial 2');
        $b->click('//form[contains(., "Another of its kind")]//button');
        $b->sees('Smallest envelope');
    }

    public function test_a_belt_is_heard_by_the_microphone(): void
    {
        $file = sys_get_temp_dir().'/magpie-belt-'.getmypid().'.wav';
        $samples = (static function (): iterable {
            // Plucked once a second, at 118 Hz, for as long as it is listened to.
            for ($i = 0; $i < 44100 * 5; $i++) {
                $t = fmod($i / 44100, 1.0);
                yield 0.6 * exp(-3 * $t) * (sin(2 * M_PI * 118 * $t) + 0.4 * sin(4 * M_PI * 118 * $t));
            }
        })();
        file_put_contents($file, Wav::of($samples, 44100));
        $b = $this->browser(390, 844, $file);
        $this->enter($b);
        $b->open('/builds/3/run/tune');
        foreach (['span' => '150 mm', 'mass' => '8.4 g/m', 'tension' => '10 N'] as $key => $text) {
            $b->find("//input[@id='{$key}']")->sendKeys($text);
        }
        $b->press('Listen');
        $heard = $b->text('//section[@aria-label="The note"]//dt[.="Note"]/following-sibling::dd');
        self::assertEqualsWithDelta(118.0, (float) $heard, 0.6);
        // 4 · 0.0084 · 0.15² · 118² = 10.5 N.
        self::assertEqualsWithDelta(
            10.5,
            (float) $b->text('//section[@aria-label="The note"]//dt[.="Tension"]/following-sibling::dd'),
            0.15,
        );
        $b->press('Store it as a reading');
        $b->find('//p[contains(., "150 mm, 8.4 g/m")]');
        self::assertSame([], $b->barriers());
        unlink($file);
    }
}
