<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Tuning;

use Magpie\Core\Simulation\Wav;
use Magpie\Core\Tuning\CannotTune;
use Magpie\Core\Tuning\Following;
use Magpie\Core\Tuning\Log;
use Magpie\Core\Tuning\Loop;
use Magpie\Core\Tuning\Note;
use Magpie\Core\Tuning\Resonances;
use Magpie\Core\Tuning\Shaper;
use Magpie\Core\Tuning\Sound;
use Magpie\Core\Tuning\Spectrum;
use Magpie\Core\Tuning\StepResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Notes, spectra, filters and heater loops: the handbook's worked figures (C9 to C11), and signals whose answer was put in. */
final class TuningTest extends TestCase
{
    private static function noise(): float
    {
        // Twelve even draws less six are nearly normal.
        $sum = -6.0;
        for ($i = 0; $i < 12; $i++) {
            $sum += mt_rand() / mt_getrandmax();
        }

        return $sum;
    }

    /**
     * A plucked string: harmonics that die away, the higher the sooner.
     *
     * @param  list<float>  $strength  of each harmonic
     * @return list<float>
     */
    private static function plucked(float $frequency, array $strength, float $noise, int $rate = 22050): array
    {
        $sound = [];
        for ($i = 0; $i < $rate; $i++) {
            $t = $i / $rate - 0.15;
            $v = $noise * self::noise();
            foreach ($t < 0 ? [] : $strength as $h => $a) {
                $v += $a * exp(-3 * ($h + 1) * $t) * sin(2 * M_PI * $frequency * ($h + 1) * $t + $h);
            }
            $sound[] = $v * 0.3;
        }

        return $sound;
    }

    /** f = √(T/µ) / 2L: 8.4 g/m, 150 mm, 40 N sound at 230 Hz. */
    public function test_the_belt_formula_both_ways(): void
    {
        self::assertEqualsWithDelta(sqrt(40 / 0.0084) / 0.3, Note::of(40, 0.15, 0.0084), 1e-9);
        self::assertEqualsWithDelta(40.0, Note::tension(Note::of(40, 0.15, 0.0084), 0.15, 0.0084), 1e-9);
    }

    public function test_forty_plucked_notes_are_heard_to_three_thousandths_harmonics_and_noise_or_not(): void
    {
        mt_srand(9);
        for ($i = 0; $i < 40; $i++) {
            $frequency = 30 * (320 / 30) ** ($i / 39);
            // Every third has hardly a ground note, as a belt plucked near its end.
            $strength = $i % 3 === 0 ? [0.15, 0.8, 0.6, 0.3] : [1.0, 0.5, 0.3, 0.1];
            $sound = Sound::read(Wav::of(self::plucked($frequency, $strength, 0.02), 22050));
            $heard = Note::heard($sound->samples, $sound->rate);
            self::assertEqualsWithDelta(
                $frequency,
                $heard->frequency,
                0.003 * $frequency,
                sprintf('%.1f Hz', $frequency),
            );
        }
    }

    public function test_hiss_silence_and_snippets_have_no_note(): void
    {
        mt_srand(4);
        $cases = [
            'no note' => array_map(static fn (): float => 0.1 * self::noise(), range(1, 22050)),
            'no sound' => array_fill(0, 22050, 0.0),
            'shorter' => array_fill(0, 400, 0.3),
        ];
        foreach ($cases as $says => $samples) {
            try {
                Note::heard($samples, 22050);
                self::fail("{$says} was heard");
            } catch (CannotTune $e) {
                self::assertStringContainsString($says, $e->getMessage());
            }
        }
    }

    /**
     * @return iterable<string, array{string, string}>
     */
    public static function sounds(): iterable
    {
        yield 'text' => ['note,170', 'no WAV'];
        yield 'cut off' => [substr(Wav::of([0.1, 0.2], 8000), 0, 44), 'no sound'];
        yield 'another code' => [substr_replace(Wav::of([0.1, 0.2], 8000), pack('v', 7), 20, 2), 'cannot be read'];
    }

    #[DataProvider('sounds')]
    public function test_what_is_no_sound_is_said(string $bytes, string $says): void
    {
        $this->expectException(CannotTune::class);
        $this->expectExceptionMessageMatches("/{$says}/");
        Sound::read($bytes);
    }

    /**
     * A mass on a spring shaken by noise: its resonance and damping are those it was made with.
     *
     * @return list<float>
     */
    private static function shaken(float $frequency, float $damping, float $rate, float $seconds): array
    {
        $omega = 2 * M_PI * $frequency;
        $damped = $omega * sqrt(1 - $damping ** 2);
        $r = exp((-$damping * $omega) / $rate);
        $c = 2 * $r * cos($damped / $rate);
        [$one, $two] = [0.0, 0.0];
        $signal = [];
        for ($i = 0, $n = (int) ($seconds * $rate); $i < $n; $i++) {
            $v = $c * $one - $r ** 2 * $two + self::noise();
            [$two, $one] = [$one, $v];
            $signal[] = $v + 0.05 * self::noise();
        }

        return $signal;
    }

    public function test_a_resonance_is_found_with_its_damping(): void
    {
        mt_srand(11);
        foreach ([[38.0, 0.06], [62.0, 0.04], [115.0, 0.08]] as [$frequency, $damping]) {
            $spectrum = Spectrum::of(self::shaken($frequency, $damping, 1000, 60), 1000);
            $peak = $spectrum->peaks(1)[0];
            self::assertEqualsWithDelta($frequency, $peak->frequency, 0.02 * $frequency);
            self::assertEqualsWithDelta($damping, $peak->damping, 0.3 * $damping);
        }
    }

    /** The area under the density is the power: a sine of 2 has a mean square of 2, wherever it lies between the lines. */
    public function test_the_power_of_a_sine_is_all_there_and_its_frequency_between_the_lines(): void
    {
        $rate = 800.0;
        foreach ([50.0, 51.37, 123.9] as $frequency) {
            $signal = array_map(
                static fn (int $i): float => 3 + 2 * sin((2 * M_PI * $frequency * $i) / $rate),
                range(0, 8191),
            );
            $spectrum = Spectrum::of($signal, $rate, 1024);
            self::assertEqualsWithDelta(2.0, array_sum($spectrum->density) * $spectrum->step, 0.02);
            self::assertEqualsWithDelta($frequency, $spectrum->peaks(1)[0]->frequency, 0.06);
        }
    }

    /** C10: K = exp(−ζπ/√(1 − ζ²)); without damping, two halves half a period apart leave |cos(π f / 2 f₀)|, three leave its square. */
    public function test_filters_leave_their_resonance_still(): void
    {
        $two = Shaper::two(50, 0.0);
        self::assertEqualsWithDelta([0.5, 0.5], $two->amplitudes, 1e-12);
        self::assertEqualsWithDelta([0.0, 0.01], $two->times, 1e-12);
        self::assertEqualsWithDelta(abs(cos((M_PI / 2) * 0.9)), $two->residual(45, 0.0), 1e-9);
        self::assertEqualsWithDelta(cos((M_PI / 2) * 0.9) ** 2, Shaper::three(50, 0.0)->residual(45, 0.0), 1e-9);
        foreach ([Shaper::two(40, 0.1), Shaper::three(40, 0.1)] as $shaper) {
            self::assertEqualsWithDelta(1.0, array_sum($shaper->amplitudes), 1e-12);
            self::assertEqualsWithDelta(0.0, $shaper->residual(40, 0.1), 1e-9);
            self::assertGreaterThan(0.01, $shaper->worstAbout(40, 0.1));
        }
        // ½ · ½ · 2 · 0.005² s²: 8000 mm/s² for a tenth of a millimetre.
        self::assertEqualsWithDelta(8000.0, $two->acceleration(0.1), 1e-6);
        self::assertLessThan($two->acceleration(0.1), Shaper::three(50, 0.0)->acceleration(0.1));
    }

    /** C11: K 2 K/%, T 60 s, L 5 s: 7.2 %/K, 10 s, 2.5 s; a relay of 50 % and a swing of 2 K: 31.8 %/K. */
    public function test_gains_of_the_handbook_and_their_overshoot(): void
    {
        $model = new StepResponse(2, 5, 60);
        self::assertEqualsWithDelta(['kp' => 7.2, 'ti' => 10.0, 'td' => 2.5], $model->byReactionCurve(), 1e-9);
        self::assertEqualsWithDelta(31.83, StepResponse::relay(50, 2), 0.01);
        self::assertEqualsWithDelta(['kp' => 19.1, 'ti' => 10.0, 'td' => 2.5], StepResponse::byRelay(31.83, 20), 0.01);
        $steep = $model->simulated($model->byReactionCurve(), 20.0);
        $soft = $model->simulated($model->byModel(), 20.0);
        self::assertGreaterThan($soft['overshoot'], $steep['overshoot']);
        self::assertLessThan(0.1 * 20, $soft['overshoot']);
        self::assertNotNull($soft['reached']);
        // More than the heater can give is never reached.
        self::assertNull($model->simulated($model->byModel(), 300.0)['reached']);
    }

    public function test_a_heater_is_found_from_its_log_with_noise_on_it(): void
    {
        mt_srand(3);
        foreach ([[2.0, 5.0, 60.0], [0.8, 12.0, 300.0], [3.5, 2.0, 25.0]] as [$gain, $dead, $constant]) {
            $time = $temperature = [];
            for ($t = 0.0; $t < 8 * $constant; $t += $constant / 200) {
                $time[] = $t;
                $rise = $t < $dead ? 0.0 : $gain * 40 * (1 - exp(-($t - $dead) / $constant));
                $temperature[] = 22 + $rise + 0.05 * self::noise();
            }
            $found = StepResponse::fit($time, $temperature, 40);
            self::assertEqualsWithDelta($gain, $found->gain, 0.01 * $gain);
            self::assertEqualsWithDelta($constant, $found->constant, 0.03 * $constant);
            self::assertEqualsWithDelta($dead, $found->dead, 0.02 * $constant);
            self::assertTrue($found->settled);
            $cut = (int) (count($time) / 8);
            self::assertFalse(
                StepResponse::fit(array_slice($time, 0, $cut), array_slice($temperature, 0, $cut), 40)->settled,
            );
        }
        $this->expectExceptionMessage('hardly rises');
        StepResponse::fit(array_map(floatval(...), range(0, 99)), array_map(static fn (): float => 22 + 0.1 * self::noise(), range(0, 99)), 40);
    }

    public function test_following_error_says_its_worst_and_whether_it_creeps(): void
    {
        $time = array_map(static fn (int $i): float => $i * 0.1, range(0, 599));
        $creeping = array_map(static fn (float $t): float => (0.02 + $t * 0.001) * sin($t * 3), $time);
        $found = Following::of($time, $creeping, 0.05);
        self::assertEqualsWithDelta(0.06, $found->trend, 0.006);
        self::assertGreaterThan(0, $found->beyond);
        self::assertEqualsWithDelta(0.08, abs($found->worst), 0.003);
        $even = Following::of($time, array_map(static fn (float $t): float => 0.02 * sin($t * 3), $time), 0.05);
        self::assertEqualsWithDelta(0.0, $even->trend, 0.001);
        self::assertSame(0, $even->beyond);
    }

    /**
     * @return iterable<string, array{list<string>, string}>
     */
    public static function logs(): iterable
    {
        yield 'nothing' => [[], 'fewer than three'];
        yield 'no header' => [['0,1', '1,2', '2,3'], 'no header'];
        yield 'a word' => [['time,x', '0,1', '1,high', '2,3'], 'line 3'];
        yield 'too few columns' => [['time,x,y', '0,1,2', '1,2'], 'line 3'];
        yield 'time goes back' => [['time,x', '0,1', '1,2', '0.5,3', '2,1'], 'goes back'];
    }

    /**
     * @param  list<string>  $lines
     */
    #[DataProvider('logs')]
    public function test_a_bad_log_names_its_line(array $lines, string $says): void
    {
        $this->expectException(CannotTune::class);
        $this->expectExceptionMessageMatches("/{$says}/");
        Log::read($lines);
    }

    public function test_a_log_with_semicolons_and_decimal_commas_reads_the_same(): void
    {
        $one = Log::read(['time,x', '0,0.5', '0.1,0.75', '0.2,1']);
        $other = Log::read(["\u{FEFF}time;x", '# by hand', '0;0,5', '0,1;0,75', '', '0,2;1']);
        self::assertEquals($one, $other);
        self::assertEqualsWithDelta(10.0, $one->rate(), 1e-9);
        self::assertLessThan(1e-9, $one->unevenness());
    }

    public function test_a_heading_says_what_its_time_is_in(): void
    {
        $rate = static fn (string $heading): float => Log::read(["{$heading},x", '0,1', '2,2', '4,3'])->rate();
        foreach (['time', 't', 'seconds', 'Zeit', 'Time (items)'] as $heading) {
            self::assertEqualsWithDelta(0.5, $rate($heading), 1e-9, $heading);
        }
        foreach (['ms', 'time ms', 'time_ms', 't [ms]', 'Milliseconds', 'millis()'] as $heading) {
            self::assertEqualsWithDelta(500, $rate($heading), 1e-6, $heading);
        }
        foreach (['µs', 'time_us', 't (µs)', 'microseconds', 'micros'] as $heading) {
            self::assertEqualsWithDelta(500_000, $rate($heading), 1e-3, $heading);
        }
    }

    /**
     * @param  list<float>  $signal
     */
    private static function logged(array $signal, float $rate): Log
    {
        $lines = ['time,x'];
        foreach ($signal as $i => $v) {
            $lines[] = sprintf('%.6f,%.9f', $i / $rate, $v);
        }

        return Log::read($lines);
    }

    /** A light resonance is left still by two impulses as long as it stays; a tenth off, 14 % is left, and three leave 2 %. */
    public function test_a_log_comes_with_the_filter_that_suits_it(): void
    {
        mt_srand(4);
        $log = self::logged(self::shaken(62.0, 0.02, 1000, 40), 1000);
        $found = (new Resonances($log, 0.2))->toArray();
        $row = $found['signals'][0];
        self::assertSame(['x', 'three impulses', 0.2], [$row['signal'], $row['best'], $found['accepted']]);
        self::assertEqualsWithDelta(62.0, $row['peaks'][0]['frequency'], 1.2);
        self::assertGreaterThan(0.1, $row['filters'][0]['residual']);
        self::assertLessThan(0.05, $row['filters'][1]['residual']);
        self::assertEqualsWithDelta([1 / 124, 1 / 62], array_column($row['filters'], 'delay'), 3e-4);
        // Twice as much rounding accepted is twice the acceleration.
        $twice = (new Resonances($log, 0.4))->toArray()['signals'][0];
        self::assertEqualsWithDelta(2 * $row['filters'][0]['acceleration'], $twice['filters'][0]['acceleration'], 2);
        self::assertLessThan($row['filters'][0]['acceleration'], $row['filters'][1]['acceleration']);
        // What is drawn goes up to 200 Hz, and its highest point is one.
        self::assertEqualsWithDelta(1.0, max(array_column($row['curve'], 1)), 1e-9);
        self::assertLessThanOrEqual(200.0, max(array_column($row['curve'], 0)));
        self::assertCount(1, $found['says']);
        // By hand, without damping: cos(0.45 π) of two impulses, and its square of three.
        self::assertEqualsWithDelta(cos(0.45 * M_PI), Shaper::two(40, 0)->worstAbout(40, 0), 1e-9);
        self::assertEqualsWithDelta(cos(0.45 * M_PI) ** 2, Shaper::three(40, 0)->worstAbout(40, 0), 1e-9);
    }

    public function test_a_log_too_slow_for_a_resonance_says_so(): void
    {
        $this->expectExceptionObject(new CannotTune(
            'there are 1 samples a second, and 40 are the least for a resonance. Is its time in milliseconds? Its heading says so then: "time ms".',
        ));
        (new Resonances(self::logged(array_map(sin(...), range(0.0, 199.0)), 1.0)))->toArray();
    }

    /** 40 % of power at 2 K/% from 22 °C: 102 °C at the end, 222 °C at the most. */
    public function test_a_heater_says_what_it_reaches_and_how_each_loop_would_do(): void
    {
        $log = static function (float $from, float $long = 8.0): Loop {
            $time = $temperature = [];
            for ($t = 0.0; $t < $long * 60; $t += 0.3) {
                $time[] = $t;
                $temperature[] = $from + ($t < 5 ? 0.0 : 80 * (1 - exp(-($t - 5) / 60)));
            }

            return new Loop($time, $temperature, 40);
        };
        $found = $log(22.0)->toArray();
        self::assertEqualsWithDelta([2.0, 5.0, 60.0, 80.0], [$found['gain'], $found['dead'], $found['constant'], $found['rise']], 0.6);
        self::assertEqualsWithDelta([222.0, 102.0], [$found['most'], $found['target']], 0.5);
        self::assertSame([], $found['says']);
        self::assertSame(['by the reaction curve', 'by a model, softer'], array_column($found['methods'], 'name'));
        [$steep, $soft] = $found['methods'];
        foreach ([$steep, $soft] as $method) {
            self::assertEqualsWithDelta($method['kp'] / $method['ti'], $method['i'], 1e-4);
            self::assertEqualsWithDelta($method['kp'] * $method['td'], $method['d'], 0.02);
            self::assertEqualsWithDelta(22.0, $method['curve'][0][1], 0.2);
        }
        self::assertGreaterThan($soft['overshoot'], $steep['overshoot']);
        // The model it found runs through what was measured.
        foreach ($found['measured'] as $i => [$t, $degrees]) {
            self::assertEqualsWithDelta($degrees, $found['model'][$i][1], 1.5, "{$t} s");
        }
        $says = static fn (float $from, ?float $target, float $long = 8.0): string => implode(' ', $log($from, $long)->toArray($target)['says']);
        self::assertStringContainsString('All its power brings it to 222 °C: 230 °C is out of reach.', $says(22.0, 230.0));
        self::assertSame('', $says(22.0, 220.0));
        self::assertStringContainsString('It began at 45 °C', $says(45.0, null));
        self::assertSame('', $says(40.0, null));
        self::assertStringContainsString('still rising when the log ends', $says(22.0, null, 1.0));
    }
}
