<?php

declare(strict_types=1);

namespace Tests\Support;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\WebDriverException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\JsonWireCompat;
use Facebook\WebDriver\Remote\RemoteExecuteMethod;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverKeys;
use RuntimeException;

/** Headless Chromium, driven as a person would: by what is written on the screen. */
final class Browser
{
    /** How long a page may take to show something, in seconds: as long as a slow machine with other work takes. */
    private const PATIENCE = 60;

    /**
     * The first element at an XPath that shows. Asked in the page itself, in one go: the driver asks of each element apart,
     * and one that was there may be gone by then.
     */
    private const SHOWS = <<<'JS'
    const all = document.evaluate(arguments[0], document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE, null);
    for (let i = 0; i < all.snapshotLength; i++) {
        const one = all.snapshotItem(i);
        // What can be picked shows where its list does.
        const seen = one.closest('option') === null ? one : one.closest('select');
        if (seen?.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return one;
    }
    return null;
    JS;

    /** Whether a text is on the page, in whatever letters it is set, and however it is spaced. */
    private const HOLDS = <<<'JS'
    const plain = (text) => text.replace(/\s+/g, ' ').toLowerCase();
    return plain(document.body?.[arguments[1]] ?? '').includes(plain(arguments[0]));
    JS;

    public readonly RemoteWebDriver $driver;

    /** @var resource */
    private $service;

    private readonly string $profile;

    /**
     * @param  string|null  $hears  a WAV file that is its microphone
     */
    public function __construct(
        private readonly string $url,
        int $width = 1280,
        int $height = 800,
        ?string $hears = null,
    ) {
        $port = self::freePort();
        $this->profile = sys_get_temp_dir().'/magpie-chromium-'.getmypid().'-'.$port;
        $service = proc_open(
            ['chromedriver', "--port={$port}", '--allowed-ips=127.0.0.1'],
            [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        );
        $this->service =
            $service === false ? throw new RuntimeException('ChromeDriver could not be started.') : $service;
        $options = (new ChromeOptions)->addArguments([
            '--headless=new',
            '--no-sandbox',
            '--disable-gpu',
            '--disable-quic',
            '--no-first-run',
            '--disable-background-networking',
            '--disable-component-update',
            '--disable-sync',
            '--disable-dev-shm-usage',
            '--hide-scrollbars',
            '--force-prefers-reduced-motion',
            '--force-color-profile=srgb',
            "--user-data-dir={$this->profile}",
            "--window-size={$width},{$height}",
            ...$hears === null
                ? []
                : [
                    '--use-fake-ui-for-media-stream',
                    '--use-fake-device-for-media-stream',
                    "--use-file-for-fake-audio-capture={$hears}",
                ],
        ]);
        $capabilities = DesiredCapabilities::chrome();
        $capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
        $capabilities->setCapability('goog:loggingPrefs', ['browser' => 'ALL']);
        $socket = false;
        for ($try = 0; $try < 200 && ! is_resource($socket = @fsockopen('127.0.0.1', $port)); $try++) {
            usleep(50_000);
        }
        if (is_resource($socket)) {
            fclose($socket);
        }
        $this->driver = RemoteWebDriver::create("http://127.0.0.1:{$port}", $capabilities, 20_000, 120_000);
        $this->size($width, $height);
        // A journey that only passes on a fast machine is found by slowing the browser down.
        $slower = (float) (getenv('MAGPIE_SLOWER') ?: 1);
        $slower > 1 && $this->slow($slower);
    }

    /** @param  array<string, mixed>  $params */
    private function emulate(string $what, array $params): void
    {
        $this->driver->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
            'cmd' => "Emulation.{$what}",
            'params' => $params,
        ]);
    }

    public function size(int $width, int $height): void
    {
        $this->emulate('setDeviceMetricsOverride', [
            'width' => $width,
            'height' => $height,
            'deviceScaleFactor' => 1,
            'mobile' => $width < 500,
        ]);
        $this->driver->manage()->window()->setSize(new WebDriverDimension($width, $height));
    }

    public function open(string $path): void
    {
        $this->driver->get($this->url.$path);
    }

    /** Goes there without loading the page anew, as a link of the application does. */
    public function go(string $path): void
    {
        $this->driver->executeScript(
            'history.pushState(null, "", arguments[0]); dispatchEvent(new PopStateEvent("popstate"))',
            [$path],
        );
    }

    public function path(): string
    {
        return (string) parse_url($this->driver->getCurrentURL(), PHP_URL_PATH);
    }

    /** Waits for an element that shows, and returns it. */
    public function find(string $xpath, float $seconds = self::PATIENCE): RemoteWebElement
    {
        return $this->until(fn (): ?RemoteWebElement => $this->shown($xpath), "Nothing shows at {$xpath}", $seconds);
    }

    private function shown(string $xpath): ?RemoteWebElement
    {
        $found = $this->driver->executeScript(self::SHOWS, [$xpath]);

        return is_array($found)
            ? new RemoteWebElement(new RemoteExecuteMethod($this->driver), JsonWireCompat::getElement($found), true)
            : null;
    }

    /** Waits until a text can be read. */
    public function sees(string $text, float $seconds = self::PATIENCE): void
    {
        $this->awaits($text, 'innerText', $seconds);
    }

    /** Waits until a text is there, though it may be one that is only read aloud on a small screen. */
    public function holds(string $text, float $seconds = self::PATIENCE): void
    {
        $this->awaits($text, 'textContent', $seconds);
    }

    private function awaits(string $text, string $of, float $seconds): void
    {
        $this->until(
            fn (): ?bool => $this->driver->executeScript(self::HOLDS, [$text, $of]) === true ?: null,
            "Nothing shows \"{$text}\"",
            $seconds,
        );
    }

    public function waitUntilGone(string $xpath, float $seconds = self::PATIENCE): void
    {
        $this->until(fn (): ?bool => $this->shown($xpath) === null ? true : null, "Still shows: {$xpath}", $seconds);
    }

    /** Presses a button or link by what it says. */
    public function press(string $text): void
    {
        $quoted = self::quote($text);
        $this->click(
            "(//button|//a|//label)[normalize-space(.)={$quoted} or starts-with(normalize-space(.), {$quoted}) or @aria-label={$quoted}]",
        );
    }

    public function click(string $xpath): void
    {
        $this->until(function () use ($xpath): ?bool {
            try {
                $this->find($xpath, 1)->click();

                return true;
            } catch (WebDriverException|RuntimeException) {
                return null;
            }
        }, "Could not press {$xpath}");
    }

    /** Edits a cell where it stands, found by the start of its label. */
    public function edit(string $label, string $text, string $end = WebDriverKeys::ENTER): void
    {
        $at = '//*[self::input or self::select or self::textarea][@aria-label='.self::quote($label).']';
        // What was stored a moment before may move the cell from under the pointer: whoever presses sees it, and presses again.
        $cell = '//button[starts-with(@aria-label, '.self::quote("{$label}: ").')]';
        $field = $this->until(function () use ($cell, $at): ?RemoteWebElement {
            $field = $this->shown($at);
            if ($field === null) {
                $this->shown($cell)?->click();
            }

            return $field;
        }, "\"{$label}\" did not open to be edited");
        if ($field->getTagName() === 'select') {
            $field
                ->findElement(WebDriverBy::xpath('.//option[normalize-space(.)='.self::quote($text).']'))
                ->click();

            return;
        }
        $field
            ->sendKeys([WebDriverKeys::CONTROL, 'a'])
            ->sendKeys($text)
            ->sendKeys($end);
    }

    /**
     * What a supplier asks for shipping, a row a step.
     *
     * @param  array<array-key, string>  $steps  value of the goods from which → cost, as typed
     * @param  string  $says  what stands there afterwards
     */
    public function ship(string $supplier, array $steps, string $says): void
    {
        $this->click('//button[@aria-label='.self::quote("Shipping of {$supplier}").']');
        $at = 0;
        foreach ($steps as $from => $cost) {
            $at++;
            if ($at > 1) {
                $this->click('//form[contains(@class, "steps")]//button[normalize-space(.)="one more step"]');
            }
            foreach (['Goods' => (string) $from, 'Shipping' => $cost] as $what => $text) {
                $this->find('//form[contains(@class, "steps")]//p['.$at.']//input[starts-with(@aria-label, "'.$what.'")]')
                    ->sendKeys([WebDriverKeys::CONTROL, 'a'])
                    ->sendKeys($text);
            }
        }
        $this->click('//form[contains(@class, "steps")]//button[normalize-space(.)="Keep"]');
        $this->find('//button[@aria-label='.self::quote("Shipping of {$supplier}").' and normalize-space(.)='.self::quote($says).']');
    }

    public function type(string $label, string $text): void
    {
        $quoted = self::quote($label);
        $field = $this->find(
            "//*[self::input or self::textarea][@aria-label={$quoted} or @placeholder={$quoted} or @id=//label[normalize-space(.)={$quoted}]/@for]",
        );
        $field->sendKeys([WebDriverKeys::CONTROL, 'a'])->sendKeys($text);
    }

    public function attach(string $xpath, string $file): void
    {
        $this->driver->findElement(WebDriverBy::xpath($xpath))->sendKeys($file);
    }

    public function key(string $key): void
    {
        $this->driver->executeScript('document.activeElement?.blur()');
        $this->driver->getKeyboard()->sendKeys($key);
    }

    /** Goes on by the tab key until it stands on this, and nothing but the keyboard is used. */
    public function tabTo(string $xpath, int $most = 150): void
    {
        $walked = [];
        for ($i = 0; $i < $most; $i++) {
            $at = $this->driver->switchTo()->activeElement();
            foreach ($this->driver->findElements(WebDriverBy::xpath($xpath)) as $wanted) {
                if ($wanted->equals($at)) {
                    return;
                }
            }
            $walked[] =
                $at->getTagName().
                ' '.
                mb_substr(trim($at->getText() ?: (string) $at->getAttribute('aria-label')), 0, 24);
            $this->keys(WebDriverKeys::TAB);
        }
        throw new RuntimeException(
            "The tab key never comes to {$xpath}; it went ".implode(', ', array_slice($walked, -40)),
        );
    }

    /** Types where the focus is. */
    public function keys(string ...$keys): void
    {
        foreach ($keys as $key) {
            $this->driver->getKeyboard()->sendKeys($key);
            usleep(40_000);
        }
    }

    public function text(string $xpath): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', $this->find($xpath)->getText()));
    }

    /** Makes the page's processor so many times slower. */
    public function slow(float $times): void
    {
        $this->emulate('setCPUThrottlingRate', ['rate' => $times]);
    }

    public function shot(string $file): void
    {
        $this->driver->takeScreenshot($file);
    }

    public function theme(string $theme): void
    {
        $this->driver->executeScript("localStorage.setItem('magpie.theme', '{$theme}')");
    }

    /**
     * What axe-core calls serious or critical on this screen.
     *
     * @param  bool|null  $contrast  true to ask of the contrast of colours alone, false of all else, null of everything
     * @return list<string>
     */
    public function barriers(?bool $contrast = null): array
    {
        $rules = match ($contrast) {
            true => ['runOnly' => ['type' => 'rule', 'values' => ['color-contrast']]],
            false => ['rules' => ['color-contrast' => ['enabled' => false]]],
            null => [],
        };
        if ($this->driver->executeScript('return "axe" in window') !== true) {
            $this->driver->executeScript(
                (string) file_get_contents(dirname(__DIR__, 2).'/node_modules/axe-core/axe.min.js'),
            );
        }
        $found = $this->driver->executeAsyncScript(
            <<<'JS'
            const done = arguments[arguments.length - 1];
            axe.run(document, { resultTypes: ['violations'], ...arguments[0] }).then((r) => done(r.violations.filter((v) => ['serious', 'critical'].includes(v.impact)).map((v) => `${v.id}: ${v.help} (${v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160)).join(' | ')})`)), (e) => done([String(e)]));
            JS
            ,
            [(object) $rules],
        );

        return is_array($found) ? array_values(array_map(strval(...), $found)) : [];
    }

    /**
     * Errors the page wrote to its console.
     *
     * @return list<string>
     */
    public function complaints(): array
    {
        $entries = $this->driver->manage()->getLog('browser');

        return array_values(
            array_map(
                static fn (array $e): string => mb_strimwidth((string) $e['message'], 0, 400, '…'),
                array_filter(
                    $entries,
                    static fn (array $e): bool => $e['level'] === 'SEVERE' &&
                        ! str_contains((string) $e['message'], 'status of 4'),
                ),
            ),
        );
    }

    public function quit(): void
    {
        try {
            $this->driver->quit();
        } finally {
            proc_terminate($this->service);
            exec('rm -rf '.escapeshellarg($this->profile));
        }
    }

    public static function quote(string $text): string
    {
        return str_contains($text, '"') ? "'{$text}'" : '"'.$text.'"';
    }

    /**
     * @template T
     *
     * @param  callable(): (T|null)  $look
     * @return T
     */
    private function until(callable $look, string $else, float $seconds = self::PATIENCE): mixed
    {
        // To look costs the page time that it needs to come to show it: less often the longer it takes.
        for ($end = microtime(true) + $seconds, $wait = 40_000; microtime(true) < $end; usleep($wait)) {
            try {
                $found = $look();
            } catch (WebDriverException) {
                $found = null;
            }
            if ($found !== null) {
                return $found;
            }
            $wait = min(300_000, (int) ($wait * 1.4));
        }
        $file = sys_get_temp_dir().'/magpie-browser-failure.png';
        $this->driver->takeScreenshot($file);
        $said = [];
        foreach ($this->driver->findElements(WebDriverBy::xpath('//*[@role="alert" or @role="status"]')) as $one) {
            $said[] = trim($one->getText());
        }
        throw new RuntimeException(
            "{$else} (at {$this->driver->getCurrentURL()}, picture in {$file}; the page says: ".
                implode(' | ', array_filter($said)).
                ')',
        );
    }

    public static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $name = $socket === false ? ':0' : (string) stream_socket_get_name($socket, false);
        $socket !== false && fclose($socket);

        return (int) substr((string) strrchr($name, ':'), 1);
    }
}
