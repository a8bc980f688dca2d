<?php

declare(strict_types=1);

namespace Magpie\Bin;

use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tuning\CannotTune;
use Magpie\Core\Tuning\HeaterLog;
use Magpie\Core\Tuning\Log;
use Magpie\Core\Tuning\Loop;
use Magpie\Core\Tuning\Note;
use Magpie\Core\Tuning\Resonances;
use Magpie\Core\Tuning\Sound;

/** Logs and sounds of a machine, from the shell: docs/format/logs.md describes the files and the shapes. */
final class TuneFile
{
    private const VERSION = 1;

    private const USAGES = [
        'spectrum' => 'usage: bin/magpie spectrum LOG.csv [--accepted=MM] [--format json]',
        'note' => 'usage: bin/magpie note SOUND.wav --span=150mm --mass=8.4g/m [--format json]',
        'step-response' => 'usage: bin/magpie step-response LOG.csv [--step=PERCENT] [--target=CELSIUS] [--format json]',
    ];

    private const OPTIONS = [
        'spectrum' => ['accepted', 'format'],
        'note' => ['span', 'mass', 'format'],
        'step-response' => ['step', 'target', 'format'],
    ];

    /**
     * 0 when something was found, 2 when the file cannot be read or nothing can be worked from it.
     *
     * @param  'spectrum'|'note'|'step-response'  $command
     * @param  list<string>  $arguments
     */
    public function run(string $command, array $arguments): int
    {
        $usage = self::USAGES[$command];
        [$file, $options] = FromFile::arguments($arguments, self::OPTIONS[$command], $usage);
        $format = $options['format'] ?? 'text';
        if (! in_array($format, ['text', 'json'], true) || ! is_file($file)) {
            throw new Failure(is_file($file) ? $usage : "{$file} cannot be opened.", 2);
        }
        try {
            $found = match ($command) {
                'spectrum' => (new Resonances(
                    Log::read(FromFile::lines($file)),
                    self::number($options['accepted'] ?? '0.15', $usage),
                ))->toArray(),
                'note' => self::note($file, $options, $usage),
                'step-response' => self::loop($file, $options, $usage),
            };
        } catch (CannotTune $e) {
            throw new Failure("{$file}: {$e->getMessage()}", 2);
        }
        if ($format === 'json') {
            FromFile::print(['magpie_'.strtr($command, '-', '_') => self::VERSION] + $found);
        } else {
            self::tell($found, '');
        }

        return 0;
    }

    /**
     * @param  array<string, string>  $options
     * @return array<string, mixed>
     *
     * @throws CannotTune
     */
    private static function note(string $file, array $options, string $usage): array
    {
        $span = self::quantity($options['span'] ?? '', Dimension::Length, $usage)->in('m');
        $mass = self::quantity(
            (string) preg_replace('~/\s*m$~', '', $options['mass'] ?? ''),
            Dimension::Mass,
            $usage,
        )->in('kg');
        $sound = Sound::read((string) file_get_contents($file));
        $note = Note::heard($sound->samples, $sound->rate);

        return [
            'frequency' => round($note->frequency, 2),
            'clearness' => round($note->clearness, 3),
            'doubt' => $note->doubt(),
            'says' => $note->says(),
            'tension' => round(Note::tension($note->frequency, $span, $mass), 2),
        ];
    }

    /**
     * @param  array<string, string>  $options
     * @return array<string, mixed>
     *
     * @throws CannotTune
     */
    private static function loop(string $file, array $options, string $usage): array
    {
        $log = Log::read(FromFile::lines($file));
        $target = isset($options['target']) ? self::number($options['target'], $usage) : null;

        $heater = HeaterLog::of($log, isset($options['step']) ? self::number($options['step'], $usage) : null);
        $found = Loop::of($heater)->toArray($target);

        return ['says' => [...$heater->says, ...$found['says']], 'taken' => $heater->taken] + $found;
    }

    private static function number(string $text, string $usage): float
    {
        return is_numeric($text) ? (float) $text : throw new Failure($usage, 2);
    }

    private static function quantity(string $text, Dimension $dimension, string $usage): Quantity
    {
        try {
            return Quantity::parse($text, $dimension);
        } catch (CannotReadQuantity $e) {
            throw new Failure("{$e->getMessage()}\n{$usage}", 2);
        }
    }

    /**
     * What was found, a line each; curves that are drawn are left out.
     *
     * @param  array<array-key, mixed>  $found
     */
    private static function tell(array $found, string $indent): void
    {
        foreach ($found as $key => $value) {
            if (in_array($key, ['curve', 'measured', 'model'], true)) {
                continue;
            }
            if (is_array($value)) {
                echo $indent, is_int($key) ? '-' : "{$key}:", "\n";
                self::tell($value, "{$indent}  ");
            } else {
                echo $indent,
                is_int($key) ? '' : "{$key}: ",
                is_bool($value) ? ($value ? 'yes' : 'no') : (is_scalar($value) ? (string) $value : '–'),
                "\n";
            }
        }
    }
}
