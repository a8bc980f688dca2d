<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/** A heater's log: its temperature from the moment its power was stepped, and by how much; found in the log, or as it was given. */
final readonly class HeaterLog
{
    /** Of the step, by which the power may waver and is still held. */
    private const HELD = 0.02;

    /**
     * @param  list<float>  $time  s, from the step on
     * @param  list<float>  $temperature  °C
     * @param  float  $air  °C before the step
     * @param  float  $step  per cent of power
     * @param  array{temperature: string, output: string|null, step: float, at: float}  $taken  which columns, and what they say of the step
     * @param  list<string>  $says
     */
    private function __construct(
        public array $time,
        public array $temperature,
        public float $air,
        public float $step,
        public array $taken,
        public array $says,
    ) {
    }

    /**
     * @param  float|null  $given  per cent the power was stepped by at the first row; needed where no column tells the power
     *
     * @throws CannotTune
     */
    public static function of(Log $log, ?float $given): self
    {
        $names = array_map(strval(...), array_keys($log->signals));
        [$temperature, $output] = Columns::heater($names);
        $values = $log->signals[$temperature];
        if ($output === null) {
            if ($given === null) {
                throw new CannotTune('no column tells the power of the heater: say by how many per cent it was stepped.');
            }

            return new self($log->time, $values, $values[0], $given, self::taken($temperature, null, $given, $log->time[0]), []);
        }
        [$step, $at] = self::stepped($log->signals[$output], $output);
        $before = array_slice($values, 0, max(1, $at));
        $says = $given !== null && abs($given - $step) > max(1.0, abs($step) * self::HELD)
            ? [sprintf('The column "%s" says a step of %.3g %%, and %.3g %% was given: what was logged counts.', $output, $step, $given)]
            : [];

        return new self(
            array_slice($log->time, $at),
            array_slice($values, $at),
            array_sum($before) / count($before),
            $step,
            self::taken($temperature, $output, $step, $log->time[$at]),
            $says,
        );
    }

    /**
     * By how many per cent the power was stepped, and at which row.
     *
     * @param  list<float>  $output
     * @return array{float, int}
     *
     * @throws CannotTune where it was not stepped once, or its scale is not clear
     */
    private static function stepped(array $output, string $name): array
    {
        $scale = self::scale(max([0.0, ...$output]), min([0.0, ...$output]), $name);
        $first = $output[0];
        $tail = max(1, intdiv(count($output), 10));
        $last = array_sum(array_slice($output, -$tail)) / $tail;
        $step = $last - $first;
        $slack = abs($step) * self::HELD;
        if (abs($step) * $scale < 1.0) {
            throw new CannotTune("the power in \"{$name}\" is not stepped: it ends as it began.");
        }
        $at = null;
        foreach ($output as $i => $value) {
            if ($at === null && abs($value - $first) > $slack) {
                $at = $i;
            }
            if (abs($value - ($at === null ? $first : $last)) > $slack) {
                throw new CannotTune(
                    "the power in \"{$name}\" changes more than once (row ".($i + 1).'): hold it steady, step it once and hold it again. A log of a loop that regulates tells no gain.',
                );
            }
        }

        // One that begins with its full power was stepped at the first row, and says so by nothing before it.
        return [$step * $scale, (int) $at];
    }

    /**
     * What turns it into per cent.
     *
     * @throws CannotTune
     */
    private static function scale(float $most, float $least, string $name): float
    {
        $isShare = $most <= 1.0 && preg_match('/%|per ?cent|pct/i', $name) !== 1;

        return match (true) {
            $least < -1e-9 || $most > 255 => throw new CannotTune(
                "the power in \"{$name}\" goes to {$most}: write it in per cent, 0 to 100.",
            ),
            $isShare => 100.0,
            $most <= 100 => 1.0,
            preg_match('/pwm/i', $name) === 1 => 100 / 255,
            default => throw new CannotTune("the power in \"{$name}\" goes to {$most}: write it in per cent, or call it \"pwm\" where it is 0 to 255."),
        };
    }

    /**
     * @return array{temperature: string, output: string|null, step: float, at: float}
     */
    private static function taken(string $temperature, ?string $output, float $step, float $at): array
    {
        return ['temperature' => $temperature, 'output' => $output, 'step' => round($step, 3), 'at' => round($at, 3)];
    }
}
