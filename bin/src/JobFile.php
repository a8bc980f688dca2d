<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Programs\Caps;
use Magpie\Core\Programs\JobCheck;
use Magpie\Core\Programs\ProgramReader;
use Magpie\Core\Programs\Stock;

/** A program held against a machine, from the shell: docs/format/job.md describes the shape. */
final class JobFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie job PROGRAM.nc --build FILE [--origin=X,Y,Z] [--stock=WORKPIECE] [--zero=top|bed] [--format json]';

    /**
     * 0 when it holds, 1 when it does not, 2 when a file cannot be read.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments(
            $arguments,
            ['build', 'origin', 'stock', 'zero', 'format'],
            self::USAGE,
        );
        $format = $options['format'] ?? 'text';
        if (! in_array($format, ['text', 'json'], true) || ! isset($options['build'])) {
            throw new Failure(self::USAGE, 2);
        }
        $build = Rules::inspector()->stands(
            FromFile::read($options['build'], $format, 'magpie_job', self::VERSION),
        );
        $stock = null;
        if (isset($options['stock'])) {
            $piece =
                $build->workpieces[$options['stock']] ??
                throw new Failure(
                    "{$options['build']} has no workpiece \"{$options['stock']}\"; it has ".
                        (implode(', ', array_keys($build->workpieces)) ?: 'none').
                        '.',
                    2,
                );
            $stock = new Stock($piece, ($options['zero'] ?? 'top') !== 'bed');
        }
        $caps = Caps::of($build);
        $program = ProgramReader::read(FromFile::lines($file), $caps);
        $held = (new JobCheck(new Survey($build), $program, $caps))->toArray(
            self::origin($options['origin'] ?? ''),
            $stock,
        );
        if ($format === 'json') {
            FromFile::print(['magpie_job' => self::VERSION] + $held);
        } else {
            echo self::text($held);
        }

        return $held['verdict'] === 'holds' || $held['verdict'] === 'tight' ? 0 : 1;
    }

    /**
     * @return array<string, float>
     */
    private static function origin(string $text): array
    {
        $origin = [];
        foreach ($text === '' ? [] : explode(',', $text) as $i => $one) {
            if (! is_numeric($one) || $i > 2) {
                throw new Failure(self::USAGE, 2);
            }
            $origin[['X', 'Y', 'Z'][$i]] = (float) $one;
        }

        return $origin;
    }

    /**
     * @param  array{verdict: string, lines: int, moves: int, seconds: float, tool_seconds: float, cut: float, rapid: float,
     *     laid: float, pierces: int, energy: float|null, axes: list<array{axis: string, low: float, high: float, reach: float,
     *     travel: float|null, left: float|null, feed: float|null, cap: float|null}>, turns: array{float, float}|null,
     *     heat: array<string, float>, stock: list<array{axis: string, size: float|null, cut: float, left: float|null}>,
     *     troubles: list<array{verdict: string, says: string, line: int|null, times: int}>}  $held
     */
    private static function text(array $held): string
    {
        $text = sprintf(
            "%s: %d lines, %d moves, %s by the model\n",
            $held['verdict'],
            $held['lines'],
            $held['moves'],
            gmdate('H:i:s', (int) round($held['seconds'])),
        );
        foreach ($held['axes'] as $axis) {
            $text .= sprintf(
                "  %s %10.2f to %10.2f mm%s\n",
                $axis['axis'],
                $axis['low'],
                $axis['high'],
                $axis['travel'] === null ? '' : sprintf(', of %.2f mm of travel', $axis['travel']),
            );
        }
        foreach ($held['stock'] as $row) {
            $text .= sprintf(
                "  %s cuts %.2f mm%s\n",
                $row['axis'],
                $row['cut'],
                $row['left'] === null ? '' : sprintf(' of %.2f, leaves %.2f', $row['size'], $row['left']),
            );
        }
        foreach ($held['troubles'] as $trouble) {
            $text .= sprintf(
                "  %-9s %s%s%s\n",
                $trouble['verdict'],
                $trouble['line'] === null ? '' : "line {$trouble['line']}: ",
                $trouble['says'],
                $trouble['times'] > 1 ? " ({$trouble['times']} times)" : '',
            );
        }

        return $text."\nA planning aid: the first run is in the air, a hand at the stop.\n";
    }
}
