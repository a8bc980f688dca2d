<?php

declare(strict_types=1);

namespace Magpie\Bin\Production;

use FilesystemIterator;
use Magpie\Bin\Shell;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;

/** Who may read what lies in the folder of an instance: keys, settings and pictures are for the user that runs it, and for nobody else. */
final readonly class Secrets
{
    public function __construct(private string $home)
    {
    }

    /**
     * Files that hold a secret, or lead to one, and can be read by others. Logs of the machine's own group are not among them.
     *
     * @return list<string>
     */
    public function open(): array
    {
        $open = [];
        clearstatcache();
        if (self::isShut($this->home)) {
            return [];
        }
        $look = static function (string $path, int $others) use (&$open): void {
            $mode = @fileperms($path);
            if ($mode !== false && ($mode & $others) !== 0) {
                $open[] = sprintf('%s (mode %04o)', $path, $mode & 07777);
            }
        };
        foreach (['.env', Settings::OWN, 'key', 'backup.key'] as $name) {
            $look("{$this->home}/{$name}", 0077);
        }
        foreach (['made', 'sessions', 'cache', 'backups'] as $folder) {
            foreach (self::isShut("{$this->home}/{$folder}") ? [] : self::below("{$this->home}/{$folder}") as $file) {
                $look($file, 0077);
            }
        }

        return $open;
    }

    /** Whether nobody else gets in, whatever the files in it allow. */
    private static function isShut(string $folder): bool
    {
        return ((int) @fileperms($folder) & 0077) === 0;
    }

    public function shut(): void
    {
        foreach (['', '/made', '/sessions', '/cache', '/backups', '/files'] as $folder) {
            if (is_dir($this->home.$folder)) {
                Shell::run('chmod -R go-rwx '.escapeshellarg($this->home.$folder));
            }
        }
    }

    /**
     * @return iterable<string>
     */
    private static function below(string $folder): iterable
    {
        if (is_dir($folder)) {
            /** @var SplFileInfo $file */
            foreach (
                new RecursiveIteratorIterator(new RecursiveDirectoryIterator($folder, FilesystemIterator::SKIP_DOTS)) as $file
            ) {
                yield $file->getPathname();
            }
        }
    }
}
