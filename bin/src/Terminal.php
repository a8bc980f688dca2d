<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Says what is being done, line by line. */
final class Terminal
{
    private float $since = 0.0;

    public function say(string $line): void
    {
        fwrite(STDOUT, $line."\n");
    }

    public function begin(string $what): void
    {
        $this->since = microtime(true);
        fwrite(STDOUT, str_pad("  {$what} ", 46, '.').' ');
    }

    public function end(string $how = 'done'): void
    {
        fwrite(STDOUT, $how.sprintf(" (%.1f s)\n", microtime(true) - $this->since));
    }
}
