<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Says what is being done, line by line. */
final class Terminal
{
    private float $since = 0.0;

    public function __construct(private readonly bool $quiet = false)
    {
    }

    public function say(string $line): void
    {
        $this->write($line."\n");
    }

    private function write(string $text): void
    {
        if (! $this->quiet) {
            fwrite(STDOUT, $text);
        }
    }

    public function begin(string $what): void
    {
        $this->since = microtime(true);
        $this->write(str_pad("  {$what} ", 46, '.').' ');
    }

    public function end(string $how = 'done'): void
    {
        $this->write($how.sprintf(" (%.1f s)\n", microtime(true) - $this->since));
    }
}
