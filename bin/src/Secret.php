<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** A word that nobody should see: asked for without an echo, or given by whoever calls, never as an argument. */
final class Secret
{
    /** From the environment, the terminal, or the first line of standard input. */
    public static function ask(string $what, string $variable): string
    {
        $given = getenv($variable);
        if (is_string($given) && $given !== '') {
            return $given;
        }
        if (! posix_isatty(STDIN)) {
            return rtrim((string) fgets(STDIN), "\r\n");
        }
        fwrite(STDERR, "{$what}: ");
        $before = trim((string) shell_exec('stty -g'));
        shell_exec('stty -echo');
        $typed = rtrim((string) fgets(STDIN), "\r\n");
        shell_exec('stty '.escapeshellarg($before));
        fwrite(STDERR, "\n");

        return $typed;
    }
}
