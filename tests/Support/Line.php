<?php

declare(strict_types=1);

namespace Tests\Support;

use RuntimeException;

/** A line to the server that can be cut for all that runs in a browser, its background worker included. */
final class Line
{
    public readonly string $url;

    private readonly string $state;

    /** @var resource */
    private $process;

    public function __construct(string $url)
    {
        $port = Browser::freePort();
        $this->url = "http://127.0.0.1:{$port}";
        $this->state = (string) tempnam(sys_get_temp_dir(), 'magpie-line-');
        $process = proc_open(
            [PHP_BINARY, __DIR__.'/line.php', (string) $port, (string) parse_url($url, PHP_URL_PORT), $this->state],
            [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
        );
        $this->process = $process === false ? throw new RuntimeException('The line could not be laid.') : $process;
        $this->set('open');
        for ($try = 0; $try < 100 && ! is_resource($socket = @fsockopen('127.0.0.1', $port)); $try++) {
            usleep(20_000);
        }
        isset($socket) && is_resource($socket) && fclose($socket);
    }

    /** @param  'open'|'cut'|'deaf'  $state */
    public function set(string $state): void
    {
        file_put_contents($this->state, $state);
        // It looks twenty times a second.
        usleep(150_000);
    }

    public function take(): void
    {
        proc_terminate($this->process);
        proc_close($this->process);
        @unlink($this->state);
    }
}
