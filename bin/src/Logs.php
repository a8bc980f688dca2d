<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Keeps logs from filling the disk. */
final class Logs
{
    private const LARGEST = 10 * 1024 * 1024;

    private const KEPT = 3;

    /**
     * Moves the contents of large logs aside. The file itself stays, since programs hold it open to append to.
     *
     * @param  list<string>  $files
     */
    public static function rotate(array $files): void
    {
        clearstatcache();
        foreach ($files as $file) {
            if (! is_file($file) || filesize($file) < self::LARGEST) {
                continue;
            }
            for ($i = self::KEPT; $i > 1; $i--) {
                @rename("{$file}.".($i - 1), "{$file}.{$i}");
            }
            copy($file, "{$file}.1");
            $handle = fopen($file, 'r+');
            if ($handle !== false) {
                ftruncate($handle, 0);
                fclose($handle);
            }
        }
    }
}
