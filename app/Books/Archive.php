<?php

declare(strict_types=1);

namespace App\Books;

use Magpie\Core\Book\Book;
use Magpie\Core\Format\CsvLine;
use RuntimeException;
use ZipArchive;

/** A build as an open archive: the build file, which reads back whole, its tables as CSV, and its pictures. */
final class Archive
{
    /** Bytes of a build file in an archive, unpacked. */
    private const LARGEST = 64_000_000;

    private const PICTURE = '~^photos/([0-9a-f-]{36}\.jpg)$~';

    /**
     * @param  string  $name  of the build file in it
     * @param  Book|null  $book  none where the build cannot be read
     * @param  array<mixed>  $photos  names
     * @param  callable(string): (string|null)  $photo
     * @return string the file it was written to
     */
    public static function of(string $name, string $json, ?Book $book, array $photos, callable $photo): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'magpie');
        $zip = new ZipArchive;
        if ($zip->open($file, ZipArchive::OVERWRITE) !== true) {
            throw new RuntimeException('The archive could not be begun.');
        }
        $zip->addFromString($name, $json);
        $number = 0;
        foreach ($book?->chapters() ?? [] as $chapter) {
            foreach ($chapter['tables'] as $table) {
                $name = trim((string) preg_replace('/[^a-z0-9]+/', '-', strtolower($chapter['title'])), '-');
                $zip->addFromString(
                    sprintf('tables/%02d-%s.csv', ++$number, $name),
                    implode('', array_map(CsvLine::of(...), [$table['head'], ...$table['rows']])),
                );
            }
            foreach ($chapter['drawings'] as $drawing) {
                $zip->addFromString("drawings/{$drawing['view']}.svg", (string) $book?->drawing($drawing['view']));
            }
        }
        foreach ($photos as $name) {
            $bytes = is_string($name) ? $photo($name) : null;
            if (is_string($name) && $bytes !== null) {
                $zip->addFromString("photos/{$name}", $bytes);
                $zip->setCompressionName("photos/{$name}", ZipArchive::CM_STORE);
            }
        }
        if (! $zip->close()) {
            throw new RuntimeException('The archive could not be written.');
        }

        return $file;
    }

    /**
     * The build file in an archive; null where there is none that can be read.
     */
    public static function json(string $file): ?string
    {
        $zip = new ZipArchive;
        if ($zip->open($file, ZipArchive::RDONLY) !== true) {
            return null;
        }
        $json = false;
        for ($i = 0; $i < $zip->numFiles && $json === false; $i++) {
            $stat = $zip->statIndex($i);
            if ($stat !== false && preg_match('~^[^/]+\.json$~', $stat['name']) === 1 && $stat['size'] <= self::LARGEST) {
                $json = $zip->getFromIndex($i);
            }
        }
        $zip->close();

        return $json === false ? null : $json;
    }

    /** How many pictures an archive brings. */
    public static function pictures(string $file): int
    {
        $zip = new ZipArchive;
        if ($zip->open($file, ZipArchive::RDONLY) !== true) {
            return 0;
        }
        $count = 0;
        for ($i = 0; $i < $zip->numFiles; $i++) {
            $count += (int) preg_match(self::PICTURE, (string) $zip->getNameIndex($i));
        }
        $zip->close();

        return $count;
    }

    /**
     * @return iterable<string, string> name → bytes of each picture in an archive
     */
    public static function photos(string $file): iterable
    {
        $zip = new ZipArchive;
        if ($zip->open($file, ZipArchive::RDONLY) !== true) {
            return;
        }
        for ($i = 0; $i < $zip->numFiles; $i++) {
            $name = (string) $zip->getNameIndex($i);
            $stat = $zip->statIndex($i);
            if (
                preg_match(self::PICTURE, $name, $m) === 1 &&
                $stat !== false &&
                $stat['size'] < 8_000_000
            ) {
                yield $m[1] => (string) $zip->getFromIndex($i);
            }
        }
        $zip->close();
    }
}
