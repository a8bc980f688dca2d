<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Advice\InspectionReport;
use Magpie\Core\Assembly\Rules;

/** Inspects a build file from the shell: the core alone. */
final class CheckFile
{
    /** 0 when nothing is Danger or Fails, 1 when something is, 2 when the file cannot be read. */
    public function run(string $file, string $format): int
    {
        $build = FromFile::read($file, $format, 'magpie_inspection', InspectionReport::VERSION);
        $inspection = Rules::inspector()->inspect($build);
        echo $format === 'json' ? InspectionReport::json($inspection) : InspectionReport::text($inspection);
        $tally = $inspection->tally();

        return $tally['danger'] + $tally['fails'] > 0 ? 1 : 0;
    }
}
