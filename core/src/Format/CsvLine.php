<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

/**
 * A row of RFC 4180. Cells a spreadsheet would run as a formula get an apostrophe before them, also where white space
 * or a sign of full width stands in front.
 */
final class CsvLine
{
    /**
     * @param  list<string>  $cells
     */
    public static function of(array $cells): string
    {
        return implode(
            ',',
            array_map(static function (string $cell): string {
                $cell = preg_match('/^(?:[\t\r\n]|\s*[=+\-@＝＋－＠])/u', $cell) === 1 ? "'".$cell : $cell;

                return preg_match('/[",\r\n]/', $cell) === 1 ? '"'.str_replace('"', '""', $cell).'"' : $cell;
            }, $cells),
        )."\r\n";
    }
}
