<?php

declare(strict_types=1);

namespace App\Imports;

use Magpie\Core\PartsList\Mapping;

/**
 * A delimited text file on disk, read line by line: RFC 4180 with comma, semicolon or tab; UTF-8, UTF-16 or
 * Windows-1252; any of the three line ends.
 */
final class CsvFile
{
    public const MOST_ROWS = 100_000;

    public const MOST_COLUMNS = 200;

    /** Bytes of one record, line ends within its quotes included. */
    private const LONGEST = 262_144;

    private readonly string $delimiter;

    public function __construct(private readonly string $path)
    {
        $handle = $this->handle();
        $first = '';
        for ($line = 0; $line < Mapping::LAST_HEADER; $line++) {
            $first .= fgets($handle, self::LONGEST);
        }
        fclose($handle);
        $counts = array_map(static fn (string $d): int => substr_count($first, $d), [
            ',' => ',',
            ';' => ';',
            "\t" => "\t",
        ]);
        arsort($counts);
        $this->delimiter = (string) array_key_first($counts);
    }

    /**
     * Brings a file that was just uploaded to UTF-8 and to lines that end in LF, in its own place.
     */
    public static function settle(string $path): void
    {
        $start = (string) file_get_contents($path, false, null, 0, 65_536);
        $wide = match (true) {
            str_starts_with($start, "\xFF\xFE") => 'UTF-16LE',
            str_starts_with($start, "\xFE\xFF") => 'UTF-16BE',
            // Without a mark: every other byte of plain letters is nought.
            strlen($start) > 3 && $start[1] === "\0" && $start[3] === "\0" => 'UTF-16LE',
            strlen($start) > 3 && $start[0] === "\0" && $start[2] === "\0" => 'UTF-16BE',
            default => null,
        };
        if ($wide !== null) {
            self::rewrite(
                $path,
                static fn (string $chunk): string => (string) mb_convert_encoding($chunk, 'UTF-8', $wide),
                2,
            );
            $start = (string) file_get_contents($path, false, null, 0, 65_536);
        }
        if (str_contains($start, "\r") && ! str_contains($start, "\n")) {
            self::rewrite($path, static fn (string $chunk): string => strtr($chunk, "\r", "\n"), 1);
        }
    }

    /**
     * @return list<string>
     */
    public function headings(int $header = 1): array
    {
        return $this->opening()[$header] ?? [];
    }

    /**
     * The lines among which the headings are.
     *
     * @return array<int, list<string>> by number
     *
     * @throws CannotImport
     */
    public function opening(): array
    {
        $lines = [];
        foreach ($this->records() as $number => $cells) {
            if ($number > Mapping::LAST_HEADER) {
                break;
            }
            $lines[$number] = $cells;
        }

        return $lines;
    }

    /**
     * Lines after the headings; empty lines are passed over.
     *
     * @return iterable<int, list<string>> line number → cells
     *
     * @throws CannotImport
     */
    public function rows(int $header = 1): iterable
    {
        foreach ($this->records() as $number => $cells) {
            if ($number > $header && implode('', $cells) !== '') {
                yield $number => $cells;
            }
        }
    }

    /** @throws CannotImport when there are more than can be taken */
    public function countRows(int $header = 1): int
    {
        $count = 0;
        foreach ($this->rows($header) as $_) {
            if (++$count > self::MOST_ROWS) {
                throw CannotImport::because(
                    'It has more than '.number_format(self::MOST_ROWS).' lines; bring it in parts.',
                );
            }
        }

        return $count;
    }

    /**
     * @return iterable<int, list<string>> number of the record → cells
     *
     * @throws CannotImport
     */
    private function records(): iterable
    {
        $handle = $this->handle();
        $number = 0;
        try {
            while (($record = $this->record($handle)) !== null) {
                $cells = str_getcsv($record, $this->delimiter, '"', '');
                if (count($cells) > self::MOST_COLUMNS) {
                    throw CannotImport::because(
                        'Line '.($number + 1).' has more than '.self::MOST_COLUMNS.' columns.',
                    );
                }
                yield ++$number => array_map(self::utf8(...), array_map(strval(...), $cells));
            }
        } finally {
            fclose($handle);
        }
    }

    /**
     * One record: a line, or several where quotes hold a line end.
     *
     * @param  resource  $handle
     *
     * @throws CannotImport
     */
    private function record($handle): ?string
    {
        $record = '';
        $open = false;
        while (($line = fgets($handle, self::LONGEST)) !== false) {
            $record .= $line;
            if (strlen($record) >= self::LONGEST - 1) {
                throw CannotImport::because(
                    'It has a line longer than '.self::LONGEST.' characters; a quotation mark may be open.',
                );
            }
            // Only a quotation mark closes what one has opened.
            if ($open && ! str_contains($line, '"')) {
                continue;
            }
            if (! str_contains($record, '"') || $this->isWhole($record)) {
                return rtrim($record, "\r\n");
            }
            $open = true;
        }

        return $record === '' ? null : rtrim($record, "\r\n");
    }

    /** Whether no quoted cell is still open at its end. A quotation mark within a plain cell, as in 24", opens none. */
    private function isWhole(string $record): bool
    {
        $d = preg_quote($this->delimiter, '/');

        return preg_match(
            "/^(?:(?:\"(?:[^\"]|\"\")*+\"[^{$d}\\n]*+|(?!\")[^{$d}\\n]*+)(?:{$d}|\\r?\\n?\\z))*+\\z/",
            $record,
        ) !== 0;
    }

    private static function utf8(string $cell): string
    {
        $cell = mb_check_encoding($cell, 'UTF-8') ? $cell : mb_convert_encoding($cell, 'UTF-8', 'Windows-1252');

        return str_replace("\0", '', (string) $cell);
    }

    /**
     * @param  callable(string): string  $change
     * @param  int  $unit  bytes that belong together
     */
    private static function rewrite(string $path, callable $change, int $unit): void
    {
        $from = fopen($path, 'rb');
        $to = fopen("{$path}.part", 'wb');
        if ($from === false || $to === false) {
            throw CannotImport::because('The uploaded file cannot be read; choose it again.');
        }
        $rest = '';
        while (! feof($from)) {
            $chunk = $rest.fread($from, 1 << 20);
            $whole = strlen($chunk) - (strlen($chunk) % $unit);
            // The two halves of a character outside the basic plane stay together.
            $whole -=
                $unit === 2 &&
                $whole >= 2 &&
                ! feof($from) &&
                preg_match('/[\xD8-\xDB]/', substr($chunk, $whole - 2, 2)) === 1
                    ? 2
                    : 0;
            $rest = substr($chunk, $whole);
            fwrite($to, $change(substr($chunk, 0, $whole)));
        }
        fclose($from);
        fclose($to);
        rename("{$path}.part", $path);
    }

    /**
     * @return resource past a byte order mark
     *
     * @throws CannotImport
     */
    private function handle()
    {
        $handle = @fopen($this->path, 'rb');
        if ($handle === false) {
            throw CannotImport::because('The uploaded file is gone; choose it again.');
        }
        if (fread($handle, 3) !== "\xEF\xBB\xBF") {
            rewind($handle);
        }

        return $handle;
    }
}
