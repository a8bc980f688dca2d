<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Tuning;

use Magpie\Core\Simulation\SimulatedLog;
use Magpie\Core\Tuning\CannotTune;
use Magpie\Core\Tuning\HeaterLog;
use Magpie\Core\Tuning\Log;
use Magpie\Core\Tuning\Loop;
use Magpie\Core\Tuning\Note;
use Magpie\Core\Tuning\Resonances;
use Magpie\Core\Tuning\Spectrum;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Columns of a log are found by what they are called, in any order; what is not clear is asked or told. */
final class ColumnsTest extends TestCase
{
    /**
     * A heater of 1.8 K/%, 5 s and 60 s, stepped from 10 to 50 % after 20 s.
     *
     * @param  list<string>  $order
     * @param  array<string, string>  $called
     */
    private static function heating(array $order, array $called, float $scale = 1.0): Log
    {
        $lines = [implode(',', array_map(static fn (string $c): string => $called[$c] ?? $c, $order))];
        for ($t = 0.0; $t < 500; $t += 0.5) {
            $after = $t - 20;
            $row = [
                'time' => sprintf('%.1f', $t),
                'output' => (string) (($after < 0 ? 10 : 50) * $scale),
                'temperature' => sprintf('%.4f', 39 + ($after < 5 ? 0 : 1.8 * 40 * (1 - exp(-($after - 5) / 60)))),
                'target' => '0',
            ];
            $lines[] = implode(',', array_map(static fn (string $c): string => $row[$c], $order));
        }

        return Log::read($lines);
    }

    /**
     * @return iterable<string, array{list<string>, array<string, string>, float}>
     */
    public static function heaters(): iterable
    {
        yield 'the output before the temperature' => [['time', 'output', 'temperature'], [], 1.0];
        yield 'the temperature first' => [['temperature', 'time', 'output'], ['temperature' => 'T actual', 'output' => 'power %'], 1.0];
        yield 'with a set point' => [['time', 'target', 'output', 'temperature'], ['target' => 'Setpoint °C', 'temperature' => 'Nozzle °C', 'output' => 'duty'], 0.01];
        yield 'as a share' => [['output', 'temperature', 'time'], ['output' => 'Heater output', 'temperature' => 'Heater temp', 'time' => 'Zeit'], 0.01];
        yield 'as counts' => [['time', 'temperature', 'output'], ['output' => 'PWM'], 2.55];
    }

    /**
     * Found in use: the output was read for the temperature, and 0.75 K/% came out where 1.80 is right.
     *
     * @param  list<string>  $order
     * @param  array<string, string>  $called
     */
    #[DataProvider('heaters')]
    public function test_a_step_and_its_moment_come_from_the_output(array $order, array $called, float $scale): void
    {
        $heater = HeaterLog::of(self::heating($order, $called, $scale), 40);
        self::assertSame(
            [$called['temperature'] ?? 'temperature', $called['output'] ?? 'output', 40.0, 20.0],
            array_values($heater->taken),
        );
        $loop = Loop::of($heater)->toArray();
        self::assertEqualsWithDelta(1.8, $loop['gain'], 0.01);
        self::assertEqualsWithDelta(5, $loop['dead'], 0.3);
        self::assertEqualsWithDelta(60, $loop['constant'], 1);
        self::assertSame([], $heater->says);
        self::assertStringContainsString('a step of 40 %, and 60 % was given', HeaterLog::of(self::heating($order, $called, $scale), 60)->says[0] ?? '');
    }

    /**
     * @return iterable<string, array{list<string>, string}>
     */
    public static function doubts(): iterable
    {
        $rows = static fn (string $head, callable $row): array => [$head, ...array_map($row, range(0, 60))];
        yield 'no time' => [$rows('a,temperature', static fn (int $i): string => "{$i},20"), 'no heading says which column is the time'];
        yield 'two times' => [$rows('time,seconds,temperature', static fn (int $i): string => "{$i},{$i},20"), 'more than one heading says time'];
        yield 'two temperatures' => [$rows('time,bed temp,nozzle temp', static fn (int $i): string => "{$i},20,30"), 'more than one column could be the temperature'];
        yield 'none that is one' => [$rows('time,a,b', static fn (int $i): string => "{$i},20,30"), 'no heading says which column is the temperature'];
        yield 'a loop that regulates' => [$rows('time,output,temp', static fn (int $i): string => "{$i},".($i % 7).',30'), 'changes more than once'];
        yield 'never stepped' => [$rows('time,output,temp', static fn (int $i): string => "{$i},40,30"), 'is not stepped'];
        yield 'counts that could be anything' => [$rows('time,output,temp', static fn (int $i): string => "{$i},".($i > 5 ? 200 : 0).',30'), 'write it in per cent'];
        yield 'no power at all' => [$rows('time,temp', static fn (int $i): string => "{$i},30"), 'say by how many per cent'];
    }

    /** @param  list<string>  $lines */
    #[DataProvider('doubts')]
    public function test_what_is_not_clear_is_asked(array $lines, string $says): void
    {
        $this->expectException(CannotTune::class);
        $this->expectExceptionMessage($says);
        HeaterLog::of(Log::read($lines), null);
    }

    public function test_the_simulated_log_tells_its_own_step(): void
    {
        $lines = explode("\n", trim((new SimulatedLog(7))->heating()));
        self::assertSame([40.0, 10.0], array_slice(array_values(HeaterLog::of(Log::read($lines), null)->taken), 2));
    }

    public function test_directions_are_found_in_any_order_and_counters_are_none(): void
    {
        mt_srand(3);
        $lines = ['seq,accel_y,temp,time ms,accel_x'];
        for ($i = 0; $i < 3000; $i++) {
            $t = $i / 800;
            $lines[] = sprintf('%d,%.5f,31.5,%.4f,%.5f', $i, sin(2 * M_PI * 60 * $t) * exp(-2 * $t), 1000 * $t, mt_rand() / mt_getrandmax());
        }
        $found = (new Resonances(Log::read($lines)))->toArray();
        self::assertSame(['accel_y', 'accel_x'], array_column($found['signals'], 'signal'));
        self::assertStringContainsString('Left out: seq, temp.', implode(' ', $found['says']));
        self::assertEqualsWithDelta(60, $found['signals'][0]['peaks'][0]['frequency'], 0.5);
    }

    /** Found in use: two steady tones were told to have a damping of 0.18 and 0.09, which was the width of the window. */
    public function test_a_steady_tone_has_no_damping_that_could_be_told(): void
    {
        foreach ([700, 2000, 20_000] as $samples) {
            foreach ([33.3, 61.0, 117.7] as $frequency) {
                $tone = [];
                for ($i = 0; $i < $samples; $i++) {
                    $tone[] = sin(2 * M_PI * $frequency * $i / 800) + 0.7 * sin(2 * M_PI * 1.9 * $frequency * $i / 800);
                }
                foreach (Spectrum::of($tone, 800)->peaks(2) as $peak) {
                    self::assertFalse($peak->isDampingKnown, "{$frequency} Hz of {$samples} samples: {$peak->damping}");
                }
            }
        }
    }

    /** Hiss and a hum of the room in it: a note that is not clear says how far it may be off, one that is clear is right. */
    public function test_a_note_in_noise_is_right_or_says_that_it_may_not_be(): void
    {
        mt_srand(11);
        $noise = static fn (): float => (mt_rand() + mt_rand() + mt_rand()) / mt_getrandmax() - 1.5;
        $clear = $doubted = 0;
        for ($i = 0; $i < 60; $i++) {
            $frequency = 45 + $i * 4.1;
            $loud = [0.02, 0.1, 0.25, 0.5][$i % 4];
            $hum = $i % 8 < 4 ? 0.0 : 0.8;
            $sound = [];
            for ($n = 0; $n < 14_000; $n++) {
                $t = $n / 22_050 - 0.05;
                $value = $loud * ($noise() + $hum * sin(2 * M_PI * 50 * $t));
                for ($h = 1; $t >= 0 && $h <= 4; $h++) {
                    $value += 0.5 / $h * exp(-4 * $h * $t) * sin(2 * M_PI * $frequency * $h * $t);
                }
                $sound[] = $value;
            }
            try {
                $heard = Note::heard($sound, 22_050);
            } catch (CannotTune) {
                $doubted++;

                continue;
            }
            if ($heard->doubt() === null) {
                $clear++;
                self::assertEqualsWithDelta($frequency, $heard->frequency, 0.01 * $frequency, "{$frequency} Hz in {$loud}");
                self::assertNull($heard->says());
            } else {
                $doubted++;
                self::assertStringContainsString('Pluck the belt again', (string) $heard->says());
            }
        }
        self::assertGreaterThan(12, $clear);
        self::assertGreaterThan(12, $doubted);
    }
}
