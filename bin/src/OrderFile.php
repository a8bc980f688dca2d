<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Buying\OrderReport;
use Magpie\Core\Buying\SplitLimits;
use Magpie\Core\Quantity\Money;

/** What to order of a build file and where, from the shell: the core alone. */
final class OrderFile
{
    private const USAGE = 'usage: bin/magpie order FILE [--by=DATE] [--at-most=MONEY] [--most-suppliers=N] [--without=SUPPLIER] [--format json]';

    /**
     * 0 when all that is wanted can be bought within the limits, 1 when something cannot, 2 when the file cannot be
     * read.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        $format = 'text';
        $file = $days = $most = $ceiling = null;
        $without = [];
        while (($argument = array_shift($arguments)) !== null) {
            [$option, $value] = [...explode('=', $argument, 2), null];
            if (in_array($option, ['--by', '--at-most', '--most-suppliers', '--without', '--format'], true)) {
                $value ??= array_shift($arguments) ?? '';
            }
            match (true) {
                $option === '--by' => ($days = self::days((string) $value)),
                $option === '--most-suppliers' => ($most = self::count((string) $value)),
                $option === '--without' => ($without[] = (string) $value),
                $option === '--at-most' && preg_match('/^\d{1,9}(\.\d\d?)?$/', (string) $value) === 1 => ($ceiling = (string) $value),
                $option === '--format' => ($format = (string) $value),
                $file === null && ! str_starts_with($argument, '--') => ($file = $argument),
                default => throw new Failure(self::USAGE, 2),
            };
        }
        if ($file === null || ! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $build = FromFile::read($file, $format, 'magpie_order', OrderReport::VERSION);
        foreach ($without as $ref) {
            if (! isset($build->suppliers[$ref])) {
                throw new Failure("--without: there is no supplier \"{$ref}\" in this build.", 2);
            }
        }
        $report = new OrderReport(
            $build,
            new SplitLimits(
                $days,
                $most,
                $without,
                10.0,
                $ceiling === null ? null : Money::of($ceiling, $build->plan->currency),
            ),
        );
        if ($format === 'json') {
            FromFile::print($report->toArray());
        } else {
            echo $report->text();
        }

        return $report->whole() ? 0 : 1;
    }

    private static function days(string $by): int
    {
        $day = \DateTimeImmutable::createFromFormat('!Y-m-d', $by);
        if ($day === false || $day->format('Y-m-d') !== $by) {
            throw new Failure('--by: a day is written YYYY-MM-DD.', 2);
        }
        $days = (int) (new \DateTimeImmutable('today'))->diff($day)->format('%r%a');
        if ($days < 0) {
            throw new Failure("--by: {$by} is past.", 2);
        }

        return $days;
    }

    private static function count(string $most): int
    {
        if (! ctype_digit($most) || (int) $most < 1) {
            throw new Failure('--most-suppliers: a whole number from 1 up.', 2);
        }

        return (int) $most;
    }
}
