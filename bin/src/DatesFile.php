<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Planning\BuildDates;

/** When a build can be done, from the shell: docs/format/dates.md describes the shape. */
final class DatesFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie dates FILE [--seed=N] [--from=DATE] [--format json]';

    /**
     * 0 when it was worked out, 2 when the file cannot be read: one whose steps wait for one another is such a file.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['seed', 'from', 'format'], self::USAGE);
        $seed = $options['seed'] ?? '1';
        $from = $options['from'] ?? date('Y-m-d');
        $format = $options['format'] ?? 'text';
        if (
            ! ctype_digit($seed) ||
            preg_match('/^\d{4}-\d\d-\d\d$/', $from) !== 1 ||
            ! in_array($format, ['text', 'json'], true)
        ) {
            throw new Failure(self::USAGE, 2);
        }
        $build = FromFile::read($file, $format, 'magpie_dates', self::VERSION);
        $dates = new BuildDates($build, $from, (int) $seed);
        $format === 'json'
            ? FromFile::print(['magpie_dates' => self::VERSION] + $dates->toArray())
            : print self::text($dates);

        return 0;
    }

    private static function text(BuildDates $dates): string
    {
        $data = $dates->toArray();
        $text = "{$data['build']}: done on {$data['planned']} as planned; in half of the cases by {$data['p50']}, in nine of ten by {$data['p90']}.\n";
        foreach ($data['activities'] as $activity) {
            if ($activity['kind'] === 'order') {
                $text .= sprintf("  order by %s  %s\n", $activity['latest'], $activity['label']);
            }
        }
        $text .= "\nWhat the end hangs on:\n";
        foreach ($data['activities'] as $activity) {
            if ($activity['critical']) {
                $text .= sprintf("  %s to %s  %s\n", $activity['from'], $activity['to'], $activity['label']);
            }
        }
        foreach ($data['waits'] as $wait) {
            $text .= "  {$wait['days']} days to fill before {$wait['to']}: {$wait['for']} waits for its parts\n";
        }
        foreach ($data['assumed'] as $assumed) {
            $text .= "  taken for granted: {$assumed}\n";
        }

        return $text;
    }
}
