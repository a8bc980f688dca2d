<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Advice\InspectionReport;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;

/** Inspects a build file from the shell: the core alone. */
final class CheckFile
{
    /** 0 when nothing is Danger or Fails, 1 when something is, 2 when the file cannot be read. */
    public function run(string $file, string $format): int
    {
        // A run that ends when it has answered has nothing to gain from looking for cycles among what it holds.
        gc_disable();
        $json = $file === '-' ? stream_get_contents(STDIN) : @file_get_contents($file);
        if ($json === false) {
            throw new Failure("{$file} cannot be opened.", 2);
        }
        try {
            $build = BuildFile::read($json);
        } catch (CannotReadBuildFile $e) {
            if ($format === 'json') {
                echo json_encode(
                    [
                        'magpie_inspection' => InspectionReport::VERSION,
                        'error' => ['pointer' => $e->pointer, 'reason' => $e->reason],
                    ],
                    JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
                ),
                "\n";
            }
            throw new Failure("{$file} cannot be read at {$e->getMessage()}", 2);
        }
        $inspection = Rules::inspector()->inspect($build);
        echo $format === 'json' ? InspectionReport::json($inspection) : InspectionReport::text($inspection);
        $tally = $inspection->tally();

        return $tally['danger'] + $tally['fails'] > 0 ? 1 : 0;
    }
}
