<?php

declare(strict_types=1);

namespace App\Imports;

use RuntimeException;

/** A delimited text file on disk, read line by line: RFC 4180 with comma, semicolon or tab, UTF-8 or Windows-1252. */
final class CsvFile
{
    private readonly string $delimiter;

    public function __construct(private readonly string $path)
    {
        $first = (string) fgets($this->handle());
        $counts = array_map(static fn (string $d): int => substr_count($first, $d), [',' => ',', ';' => ';', "\t" => "\t"]);
        arsort($counts);
        $this->delimiter = (string) array_key_first($counts);
    }

    /**
     * @return list<string>
     */
    public function headings(): array
    {
        foreach ($this->records() as $cells) {
            return $cells;
        }

        return [];
    }

    /**
     * Lines after the headings; empty lines are passed over.
     *
     * @return iterable<int, list<string>> line number → cells
     */
    public function rows(): iterable
    {
        $first = true;
        foreach ($this->records() as $number => $cells) {
            if (! $first && implode('', $cells) !== '') {
                yield $number => $cells;
            }
            $first = false;
        }
    }

    public function countRows(): int
    {
        $count = 0;
        foreach ($this->rows() as $_) {
            $count++;
        }

        return $count;
    }

    /**
     * @return iterable<int, list<string>>
     */
    private function records(): iterable
    {
        $handle = $this->handle();
        $number = 0;
        while (($cells = fgetcsv($handle, null, $this->delimiter, '"', '')) !== false) {
            yield ++$number => array_map(self::utf8(...), array_map(strval(...), $cells));
        }
        fclose($handle);
    }

    private static function utf8(string $cell): string
    {
        $cell = mb_check_encoding($cell, 'UTF-8') ? $cell : mb_convert_encoding($cell, 'UTF-8', 'Windows-1252');

        return str_replace("\0", '', (string) $cell);
    }

    /**
     * @return resource past a byte order mark
     */
    private function handle()
    {
        $handle = @fopen($this->path, 'rb');
        if ($handle === false) {
            throw new RuntimeException('The uploaded file is gone; choose it again.');
        }
        if (fread($handle, 3) !== "\xEF\xBB\xBF") {
            rewind($handle);
        }

        return $handle;
    }
}
