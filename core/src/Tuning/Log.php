<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/**
 * A log of an instrument: CSV with a header that names its columns, in any order; the time in seconds, or what its heading says, each
 * other a signal. docs/format/logs.md.
 */
final readonly class Log
{
    /** How a heading says that its time is in thousandths or millionths of a second. */
    private const FINER = ['/(^|[^a-zµ])(ms|millis|milliseconds?)([^a-z]|$)/iu' => 1e3, '/(^|[^a-zµ])([uµ]s|micros|microseconds?)([^a-z]|$)/iu' => 1e6];

    /** Rows of one log. */
    private const MOST = 2_000_000;

    /**
     * @param  list<float>  $time  s
     * @param  array<string, list<float>>  $signals  by the name of the column
     */
    private function __construct(public array $time, public array $signals)
    {
    }

    /**
     * @param  iterable<string>  $lines
     *
     * @throws CannotTune with the line
     */
    public static function read(iterable $lines): self
    {
        $names = null;
        $time = [];
        $columns = [];
        $delimiter = ',';
        $finer = 1.0;
        $clock = 0;
        $number = 0;
        foreach ($lines as $line) {
            $number++;
            $line = trim($line, " \r\n\t\u{FEFF}");
            if ($line === '' || $line[0] === '#') {
                continue;
            }
            if ($names === null) {
                $delimiter = str_contains($line, ';') ? ';' : (str_contains($line, "\t") ? "\t" : ',');
                $names = array_map(static fn (string $name): string => trim($name, " \"\t"), explode($delimiter, $line));
                if (count($names) < 2 || is_numeric(strtr($names[0], ',', '.'))) {
                    throw new CannotTune(
                        "line {$number}: there is no header; it names the columns, one of them the time in s.",
                    );
                }
                $clock = Columns::clock($names);
                $columns = array_fill(0, count($names), []);
                foreach (self::FINER as $heading => $times) {
                    $finer = preg_match($heading, $names[$clock]) === 1 ? $times : $finer;
                }

                continue;
            }
            $cells = explode($delimiter, $line);
            if (count($cells) < count($names)) {
                throw new CannotTune(
                    "line {$number}: there are ".count($cells).' columns, and '.count($names).' in the header.',
                );
            }
            foreach ($names as $i => $name) {
                $cell = $delimiter === ';' ? strtr(trim($cells[$i]), ',', '.') : trim($cells[$i]);
                if (! is_numeric($cell) || ! is_finite((float) $cell)) {
                    throw new CannotTune("line {$number}: \"{$cell}\" in column {$name} is no figure.");
                }
                if ($i === $clock) {
                    $time[] = (float) $cell / $finer;
                } else {
                    $columns[$i][] = (float) $cell;
                }
            }
            if (count($time) > self::MOST) {
                throw new CannotTune('there are more than '.self::MOST.' rows.');
            }
        }
        if ($names === null || count($time) < 3) {
            throw new CannotTune('there are fewer than three rows in it.');
        }
        for ($i = 1, $n = count($time); $i < $n; $i++) {
            if ($time[$i] <= $time[$i - 1]) {
                throw new CannotTune(
                    'the time goes back or stands still at row '.
                        ($i + 1).
                        ": {$time[$i]} s after {$time[$i - 1]} s.",
                );
            }
        }
        $signals = [];
        foreach ($names as $i => $name) {
            if ($i !== $clock) {
                $signals[$name === '' ? 'signal '.($i + 1) : $name] = $columns[$i];
            }
        }

        return new self($time, $signals);
    }

    /** Samples a second, by the whole of it. */
    public function rate(): float
    {
        $n = count($this->time);

        return ($n - 1) / ($this->time[$n - 1] - $this->time[0]);
    }

    /** How much the time between two samples differs from the mean, at most, as a share of it. */
    public function unevenness(): float
    {
        $mean = 1 / $this->rate();
        $worst = 0.0;
        for ($i = 1, $n = count($this->time); $i < $n; $i++) {
            $worst = max($worst, abs($this->time[$i] - $this->time[$i - 1] - $mean));
        }

        return $worst / $mean;
    }
}
