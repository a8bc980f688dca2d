<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Planning\PrintReport;

/** What is printed, where and when, from the shell: docs/format/prints.md describes the shape. */
final class PrintsFile
{
    private const USAGE = 'usage: bin/magpie prints FILE [--from=DATE] [--format json]';

    /**
     * 0 when every piece can be given to a printer, 1 when one cannot, 2 when the file cannot be read.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['from', 'format'], self::USAGE);
        $from = $options['from'] ?? date('Y-m-d');
        $format = $options['format'] ?? 'text';
        if (preg_match('/^\d{4}-\d\d-\d\d$/', $from) !== 1 || ! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $report = new PrintReport(FromFile::read($file, $format, 'magpie_prints', PrintReport::VERSION), $from);
        if ($format === 'json') {
            FromFile::print($report->toArray());
        } else {
            echo $report->text();
        }

        return $report->whole() ? 0 : 1;
    }
}
