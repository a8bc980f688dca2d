<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/**
 * Which column of a log is what, by its heading: instruments put them in any order. What could be two things is asked, never taken.
 */
final class Columns
{
    /** A word for time at its beginning; or nothing but "t" or a unit, with a unit in brackets or behind it. */
    private const TIME = '/^(?:(?:time|times?tamp|zeit|temps|tiempo|tempo|elapsed|clock|secs?|seconds?|millis|milliseconds?|micros|microseconds?)(?![a-z])|(?:t|s|ms|[uµ]s)(?:\s*[\[(_].*|\s+(?:s|ms|[uµ]s))?$)/iu';

    private const TEMPERATURE = '/(temp|°\s?[cf]\b|degc|celsius|grad|actual|measured|current[_ ]?temp|\bist\b|hot.?end|nozzle|sensor|thermistor|probe)/iu';

    private const OUTPUT = '/(out|power|duty|pwm|heater|leistung|stell|puissance|watt|\bcv\b|\bmv\b|drive|^%$|\bpct\b|per ?cent)/iu';

    private const TARGET = '/(target|set.?point|\bsoll\b|\bsp\b|consigne|wanted|desired)/iu';

    private const DIRECTION = '/(^|[^a-z])(acc(el)?(eration)?[_ -]?)?[xyz]([^a-z]|$)|acc/iu';

    private const COUNTER = '/^(#|n|no\.?|nr|i|index|sample|row|count|seq(uence)?|id)$/iu';

    /**
     * @param  list<string>  $names
     * @return int the column of the time
     *
     * @throws CannotTune where no heading, or more than one, says so
     */
    public static function clock(array $names): int
    {
        $found = array_keys(array_filter($names, static fn (string $n): bool => preg_match(self::TIME, $n) === 1));
        if (count($found) === 1) {
            return $found[0];
        }
        throw new CannotTune(
            $found === []
                ? 'no heading says which column is the time; call it "time", with "ms" beside it where it is in milliseconds. The columns are '.self::listed($names).'.'
                : 'more than one heading says time: '.self::listed(array_map(static fn (int $i): string => $names[$i], $found)).'. Take one of them out.',
        );
    }

    /**
     * The temperature of a heater's log, and the power it was given where that was logged too.
     *
     * @param  list<string>  $names  of the signals
     * @return array{string, string|null}
     *
     * @throws CannotTune where it could be more than one
     */
    public static function heater(array $names): array
    {
        $left = array_values(array_filter(
            $names,
            static fn (string $n): bool => preg_match(self::TARGET, $n) !== 1 && preg_match(self::COUNTER, $n) !== 1,
        ));
        $isTemperature = static fn (string $n): bool => preg_match(self::TEMPERATURE, $n) === 1;
        $isOutput = static fn (string $n): bool => preg_match(self::OUTPUT, $n) === 1;
        // "heater temperature" is a temperature, "heater output" is none.
        $temperatures = array_values(array_filter($left, static fn (string $n): bool => $isTemperature($n) && preg_match('/out|power|duty|pwm/i', $n) !== 1));
        $outputs = array_values(array_filter($left, static fn (string $n): bool => $isOutput($n) && ! in_array($n, $temperatures, true)));
        $rest = array_values(array_diff($left, $temperatures, $outputs));
        if ($temperatures === [] && count($rest) === 1) {
            $temperatures = $rest;
        }
        if (count($temperatures) !== 1) {
            throw new CannotTune(
                ($temperatures === [] ? 'no heading says which column is the temperature' : 'more than one column could be the temperature: '.self::listed($temperatures)).
                    '; call the one that counts "temperature" and take the others out. The columns are '.self::listed($names).'.',
            );
        }
        if (count($outputs) > 1) {
            throw new CannotTune(
                'more than one column could be the power of the heater: '.self::listed($outputs).'; leave one of them, called "output".',
            );
        }

        return [$temperatures[0], $outputs[0] ?? null];
    }

    /**
     * The directions of an accelerometer; where none is named so, every signal that is no counter.
     *
     * @param  list<string>  $names
     * @return list<string>
     */
    public static function directions(array $names): array
    {
        $named = array_values(array_filter($names, static fn (string $n): bool => preg_match(self::DIRECTION, $n) === 1));

        return $named !== []
            ? $named
            : array_values(array_filter($names, static fn (string $n): bool => preg_match(self::COUNTER, $n) !== 1));
    }

    /**
     * @param  list<string>  $names
     */
    private static function listed(array $names): string
    {
        return implode(', ', array_map(static fn (string $n): string => "\"{$n}\"", $names));
    }
}
