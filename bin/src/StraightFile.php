<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Straightness\CannotAlign;
use Magpie\Core\Straightness\Methods;
use Magpie\Core\Straightness\Outcome;

/** Alignments worked from readings in a file, from the shell: docs/format/straight.md describes the shape. */
final class StraightFile
{
    private const VERSION = 1;

    private const USAGE = 'usage: bin/magpie straight READINGS.json [--format json]';

    /**
     * 0 when all hold or have no limit, 1 when one fails, 2 when the file cannot be read or worked.
     *
     * @param  list<string>  $arguments
     */
    public function run(array $arguments): int
    {
        [$file, $options] = FromFile::arguments($arguments, ['format'], self::USAGE);
        $format = $options['format'] ?? 'text';
        if (! in_array($format, ['text', 'json'], true)) {
            throw new Failure(self::USAGE, 2);
        }
        $text = is_file($file) ? file_get_contents($file) : false;
        $data = $text === false ? null : json_decode($text, true, 16);
        if (! is_array($data)) {
            throw new Failure("{$file} is not there, or is not JSON.", 2);
        }
        $all = array_is_list($data) ? $data : [$data];
        $done = [];
        $worst = 0;
        foreach ($all as $i => $one) {
            $kind = is_array($one) && is_string($one['kind'] ?? null) ? $one['kind'] : '';
            $given =
                is_array($one) && is_array($one['given'] ?? null) ? array_filter($one['given'], is_string(...)) : [];
            try {
                $outcome = Methods::work($kind, array_combine(array_map(strval(...), array_keys($given)), $given));
            } catch (CannotAlign $e) {
                throw new Failure("{$file}, number ".($i + 1).", {$e->field}: {$e->getMessage()}", 2);
            }
            $worst = $outcome->verdict() === 'fails' ? 1 : $worst;
            $done[] = ['kind' => $kind] + $outcome->toArray();
            if ($format === 'text') {
                echo self::text($kind, $outcome);
            }
        }
        if ($format === 'json') {
            FromFile::print(['magpie_straight' => self::VERSION, 'alignments' => $done]);
        }

        return $worst;
    }

    private static function text(string $kind, Outcome $outcome): string
    {
        $text = Methods::all()[$kind]->title()."\n";
        foreach ($outcome->figures as $figure) {
            $text .= sprintf(
                "  %-36s %10.4f %s%s\n",
                $figure['label'],
                $figure['value'],
                $figure['unit'],
                $figure['uncertainty'] === null ? '' : sprintf(' ± %.4f', $figure['uncertainty']),
            );
        }
        foreach ($outcome->working as $line) {
            $text .= "      {$line}\n";
        }
        foreach ($outcome->says as $line) {
            $text .= "  {$line}\n";
        }
        $verdict = $outcome->verdict();

        return $text.($verdict === null ? '' : "  {$verdict}, against a limit of {$outcome->limit} mm\n")."\n";
    }
}
