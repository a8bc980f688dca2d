<?php

declare(strict_types=1);

namespace Magpie\Bin;

use FilesystemIterator;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;
use SplFileInfo;
use ZipArchive;

/**
 * Everything people made, in one archive: the database as it stood at one moment, pictures and keys, each with its
 * checksum. Sessions and caches are left behind.
 */
final readonly class Backup
{
    public const VERSION = 1;

    private const MANIFEST = 'manifest.json';

    /** @param  string  $folder  of the instance */
    public function __construct(private string $folder)
    {
    }

    /**
     * Writes the archive; an old one of that name stays until the new one is whole.
     *
     * @param  list<string>  $migrations  the state the database is in
     * @return array{made: string, migrations: list<string>, files: array<string, array{bytes: int, sha256: string}>}
     *
     * @throws Failure
     */
    public function write(DatabaseClient $database, array $migrations, string $file): array
    {
        $dump = "{$file}.sql.part";
        @mkdir(dirname($file), 0700, true);
        try {
            // The database first: pictures are stored before the rows that name them and never changed.
            $database->dump('magpie', $dump);
            $zip = new ZipArchive;
            if ($zip->open("{$file}.part", ZipArchive::CREATE | ZipArchive::OVERWRITE) !== true) {
                throw new Failure("{$file} cannot be written.");
            }
            $manifest = [
                'magpie_backup' => self::VERSION,
                'made' => date('c'),
                'migrations' => $migrations,
                'files' => [],
            ];
            foreach (['database.sql' => $dump, 'key' => "{$this->folder}/key"] + $this->pictures() as $name => $path) {
                if (is_file($path)) {
                    $zip->addFile($path, $name);
                    $zip->setCompressionName(
                        $name,
                        str_ends_with($name, '.jpg') ? ZipArchive::CM_STORE : ZipArchive::CM_DEFLATE,
                    );
                    $manifest['files'][$name] = [
                        'bytes' => (int) filesize($path),
                        'sha256' => (string) hash_file('sha256', $path),
                    ];
                }
            }
            $zip->addFromString(
                self::MANIFEST,
                (string) json_encode($manifest, JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES),
            );
            if (! $zip->close()) {
                throw new Failure("{$file} could not be written: {$zip->getStatusString()}.");
            }
            chmod("{$file}.part", 0600);
            rename("{$file}.part", $file);
        } finally {
            @unlink($dump);
            @unlink("{$file}.part");
        }

        return ['made' => $manifest['made'], 'migrations' => $migrations, 'files' => $manifest['files']];
    }

    /**
     * Lays an archive out in this instance's folder, which must not be there yet: all of it or nothing.
     *
     * @return string the dump to fill the database from
     *
     * @throws Failure when the archive is none, is of a newer version or is not whole
     */
    public function unpack(string $file): string
    {
        $zip = new ZipArchive;
        if (! is_file($file) || $zip->open($file, ZipArchive::RDONLY) !== true) {
            throw new Failure("{$file} is not a backup that can be opened.", 2);
        }
        $manifest = json_decode((string) $zip->getFromName(self::MANIFEST), true);
        if (
            ! is_array($manifest) ||
            ! is_int($manifest['magpie_backup'] ?? null) ||
            ! is_array($manifest['files'] ?? null)
        ) {
            throw new Failure("{$file} is not a backup of Frugal Magpie.", 2);
        }
        if ($manifest['magpie_backup'] > self::VERSION) {
            throw new Failure("{$file} was made by a newer version; restore it with that one.", 2);
        }
        foreach ($manifest['files'] as $name => $expected) {
            $target = "{$this->folder}/".($name === 'database.sql' ? 'restore.sql' : $name);
            if (
                preg_match('#^(database\.sql|key|files/[A-Za-z0-9._/-]+)$#', $name) !== 1 ||
                str_contains($name, '..')
            ) {
                throw new Failure("{$file} holds \"{$name}\", which no backup does.", 2);
            }
            @mkdir(dirname($target), 0700, true);
            $from = $zip->getStream($name);
            $to = fopen($target, 'wb');
            if ($from === false || $to === false || stream_copy_to_stream($from, $to) === false || ! fclose($to)) {
                throw new Failure("{$name} could not be taken out of {$file}.");
            }
            if (! is_array($expected) || hash_file('sha256', $target) !== ($expected['sha256'] ?? null)) {
                throw new Failure("{$file} is damaged: {$name} is not what was put in. Nothing was restored.", 2);
            }
            chmod($target, 0600);
        }
        $zip->close();
        if (! is_file("{$this->folder}/restore.sql")) {
            throw new Failure("{$file} holds no database.", 2);
        }

        return "{$this->folder}/restore.sql";
    }

    /**
     * @return array<string, string> name in the archive → path
     */
    private function pictures(): array
    {
        $found = [];
        $root = "{$this->folder}/files/photos";
        if (is_dir($root)) {
            /** @var SplFileInfo $file */
            foreach (
                new RecursiveIteratorIterator(new RecursiveDirectoryIterator($root, FilesystemIterator::SKIP_DOTS)) as $file
            ) {
                $found['files/photos'.substr($file->getPathname(), strlen($root))] = $file->getPathname();
            }
        }
        ksort($found);

        return $found;
    }
}
