<?php

declare(strict_types=1);

namespace Magpie\Core\Simulation;

use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Stands in for an accelerometer, a thermometer that logs, a drive that logs its following error, and a microphone: files as they would
 * give them, with noise. The same seed always gives the same.
 */
final readonly class SimulatedLog
{
    public function __construct(private int $seed)
    {
    }

    private function randomizer(string $what): Randomizer
    {
        return new Randomizer(new Mt19937(crc32("{$this->seed}/{$what}")));
    }

    private static function noise(Randomizer $from): float
    {
        // Twelve even draws less six are nearly normal.
        $sum = -6.0;
        for ($i = 0; $i < 12; $i++) {
            $sum += $from->getInt(0, 1_000_000) / 1e6;
        }

        return $sum;
    }

    /** Half a minute of three directions, each with a resonance of its own that is shaken by noise. */
    public function acceleration(int $rate = 800, float $seconds = 20.0): string
    {
        $from = $this->randomizer('acceleration');
        $poles = [];
        foreach ([41.0 + $from->getInt(0, 40) / 10, 58.0 + $from->getInt(0, 60) / 10, 96.0] as $i => $frequency) {
            $damping = 0.05 + 0.02 * $i;
            $r = exp((-$damping * 2 * M_PI * $frequency) / $rate);
            $poles[] = [2 * $r * cos((2 * M_PI * $frequency * sqrt(1 - $damping ** 2)) / $rate), $r ** 2];
        }
        $state = [[0.0, 0.0], [0.0, 0.0], [0.0, 0.0]];
        $csv = "time,x,y,z\n";
        for ($n = 0; $n < $rate * $seconds; $n++) {
            $row = [sprintf('%.6f', $n / $rate)];
            foreach ($poles as $i => [$one, $two]) {
                $value = $one * $state[$i][0] - $two * $state[$i][1] + self::noise($from);
                $state[$i] = [$value, $state[$i][0]];
                $row[] = sprintf('%.4f', $value + 0.2 * self::noise($from));
            }
            $csv .= implode(',', $row)."\n";
        }

        return $csv;
    }

    /** A heater stepped to 40 % after ten seconds, logged twice a second, with its power beside it. */
    public function heating(): string
    {
        $from = $this->randomizer('heating');
        $dead = 4 + $from->getInt(0, 30) / 10;
        $constant = 70 + $from->getInt(0, 200) / 10;
        $csv = "time,output,temperature\n";
        for ($t = -10.0; $t < 8 * $constant; $t += 0.5) {
            $rise = $t < $dead ? 0.0 : 84 * (1 - exp(-($t - $dead) / $constant));
            $csv .= sprintf("%.1f,%d,%.2f\n", $t + 10, $t < 0 ? 0 : 40, 21.5 + $rise + 0.06 * self::noise($from));
        }

        return $csv;
    }

    /** An axis that is moved to and fro, and follows a little worse as it warms. */
    public function following(): string
    {
        $from = $this->randomizer('following');
        $csv = "time,x\n";
        for ($t = 0.0; $t < 60; $t += 0.05) {
            $size = 0.02 + 0.0003 * $t;
            $csv .= sprintf("%.2f,%.5f\n", $t, $size * sin(1.8 * $t) + 0.001 * self::noise($from));
        }

        return $csv;
    }

    /** A plucked belt: a quarter second of quiet, then its harmonics die away. */
    public function note(int $rate = 22050): string
    {
        $from = $this->randomizer('note');
        $frequency = 90 + $from->getInt(0, 400) / 10;
        $samples = [];
        for ($i = 0; $i < $rate; $i++) {
            $t = $i / $rate - 0.25;
            $value = 0.01 * self::noise($from);
            for ($h = 1; $t >= 0 && $h <= 4; $h++) {
                $value += (0.5 / $h) * exp(-4 * $h * $t) * sin(2 * M_PI * $frequency * $h * $t);
            }
            $samples[] = $value;
        }

        return Wav::of($samples, $rate);
    }
}
