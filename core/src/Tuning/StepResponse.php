<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/**
 * A heater stepped from one power to another: gain, dead time and time constant by the points at 28.3 and 63.2 % of the rise (Smith's
 * two points, from memory), gains of the usual three-term loop by the reaction curve (Ziegler and Nichols 1942) or by a relay test
 * (Åström and Hägglund 1984), and the overshoot each gives in a simulation of the model.
 */
final readonly class StepResponse
{
    private const RISE_SHORT = 0.283;

    private const RISE_LONG = 0.632;

    /**
     * @param  float  $gain  K for one per cent of power
     * @param  float  $dead  s
     * @param  float  $constant  s
     * @param  float  $rise  K, in the end
     * @param  bool  $settled  it had stopped rising when the log ends
     */
    public function __construct(
        public float $gain,
        public float $dead,
        public float $constant,
        public float $rise = 0.0,
        public bool $settled = true,
    ) {
    }

    /**
     * @param  list<float>  $time  s
     * @param  list<float>  $temperature  °C
     * @param  float  $step  per cent of power it was stepped by, at the first row
     * @param  float|null  $start  °C before it; the first row where null
     *
     * @throws CannotTune
     */
    public static function fit(array $time, array $temperature, float $step, ?float $start = null): self
    {
        $n = count($time);
        if ($n < 20) {
            throw new CannotTune("there are {$n} rows; a step response needs 20 at least.");
        }
        if (abs($step) < 1e-9) {
            throw new CannotTune('the power was not stepped.');
        }
        $start ??= $temperature[0];
        // The end is the mean of the last tenth.
        $tail = max(2, intdiv($n, 10));
        $end = array_sum(array_slice($temperature, -$tail)) / $tail;
        $rise = $end - $start;
        $noise = self::noise($temperature);
        if (abs($rise) < max(1.0, 6 * $noise)) {
            throw new CannotTune('the temperature hardly rises: log for longer, or step by more.');
        }
        $before = array_sum(array_slice($temperature, -2 * $tail, $tail)) / $tail;
        $settled = abs($end - $before) < 0.02 * abs($rise);
        $t1 = self::crossing($time, $temperature, $start + self::RISE_SHORT * $rise, $rise > 0);
        $t2 = self::crossing($time, $temperature, $start + self::RISE_LONG * $rise, $rise > 0);
        $constant = 1.5 * ($t2 - $t1);
        if ($constant <= 0) {
            throw new CannotTune('it rises in one jump: that is no heater with a mass.');
        }

        return new self($rise / $step, max(0.0, $t2 - $time[0] - $constant), $constant, $rise, $settled);
    }

    /**
     * The ultimate gain, K_u = 4d / πa, of a relay that switches by ± d per cent and a swing of ± a kelvin.
     */
    public static function relay(float $power, float $swing): float
    {
        return (4 * $power) / (M_PI * $swing);
    }

    /**
     * Gains of the loop, in per cent for a kelvin, s and s: by the reaction curve.
     *
     * @return array{kp: float, ti: float, td: float}
     *
     * @throws CannotTune
     */
    public function byReactionCurve(): array
    {
        if ($this->dead <= 0) {
            throw new CannotTune('there is no dead time to be seen: log more often, or use the relay test.');
        }

        return [
            'kp' => (1.2 * $this->constant) / ($this->gain * $this->dead),
            'ti' => 2 * $this->dead,
            'td' => $this->dead / 2,
        ];
    }

    /**
     * The same from a relay test: 0.6 K_u, P_u / 2, P_u / 8.
     *
     * @return array{kp: float, ti: float, td: float}
     */
    public static function byRelay(float $ultimate, float $period): array
    {
        return ['kp' => 0.6 * $ultimate, 'ti' => $period / 2, 'td' => $period / 8];
    }

    /**
     * Softer: internal model control with a closed-loop constant of the greater of 0.8 dead times and a tenth of the time constant
     * (Rivera, Morari and Skogestad 1986, from memory).
     *
     * @return array{kp: float, ti: float, td: float}
     */
    public function byModel(): array
    {
        $lambda = max(0.8 * $this->dead, 0.1 * $this->constant);
        $ti = $this->constant + $this->dead / 2;

        return [
            'kp' => $ti / ($this->gain * ($lambda + $this->dead / 2)),
            'ti' => $ti,
            'td' => ($this->constant * $this->dead) / (2 * $this->constant + $this->dead),
        ];
    }

    /**
     * What the loop does on the model: a step of the set point by some kelvin, power held between 0 and 100 %, the integral
     * stopped while it is at an end.
     *
     * @param  array{kp: float, ti: float, td: float}  $gains
     * @param  float  $target  K above the air
     * @return array{overshoot: float, reached: float|null, curve: list<array{float, float}>} overshoot in K; time to 95 % in s
     */
    public function simulated(array $gains, float $target): array
    {
        $dt = max(0.002, min($this->constant / 2000, max($this->dead, 0.1) / 40));
        $delay = (int) round($this->dead / $dt);
        $queue = $delay > 0 ? array_fill(0, $delay, 0.0) : [];
        $t = $sum = 0.0;
        $before = 0.0;
        $peak = 0.0;
        $reached = null;
        $curve = [];
        $steps = (int) min(200_000, ceil((12 * $this->constant + 20 * $this->dead) / $dt));
        $every = max(1, intdiv($steps, 200));
        for ($i = 0; $i < $steps; $i++) {
            $error = $target - $t;
            $slope = ($t - $before) / $dt;
            $before = $t;
            $wanted = $gains['kp'] * ($error + $sum / $gains['ti'] - $gains['td'] * $slope);
            $power = max(0.0, min(100.0, $wanted));
            if ($power === $wanted || ($wanted > 100 && $error < 0) || ($wanted < 0 && $error > 0)) {
                $sum += $error * $dt;
            }
            // What acts now was given a dead time ago.
            $acting = $delay > 0 ? $queue[$i % $delay] : $power;
            if ($delay > 0) {
                $queue[$i % $delay] = $power;
            }
            $t += (($this->gain * $acting - $t) / $this->constant) * $dt;
            $peak = max($peak, $t);
            if ($reached === null && $t >= 0.95 * $target) {
                $reached = $i * $dt;
            }
            if ($i % $every === 0) {
                $curve[] = [round($i * $dt, 2), round($t, 3)];
            }
        }

        return ['overshoot' => max(0.0, $peak - $target), 'reached' => $reached, 'curve' => $curve];
    }

    /** Most power gives so many kelvin above the air. */
    public function most(): float
    {
        return 100 * $this->gain;
    }

    /**
     * @param  list<float>  $values
     */
    private static function noise(array $values): float
    {
        $sum = 0.0;
        $n = count($values);
        for ($i = 2; $i < $n; $i++) {
            $sum += ($values[$i] - 2 * $values[$i - 1] + $values[$i - 2]) ** 2;
        }

        return sqrt($sum / max(1, $n - 2) / 6);
    }

    /**
     * When a level is passed for good: the last crossing before it stays beyond, so that noise does not tell early.
     *
     * @param  list<float>  $time
     * @param  list<float>  $values
     */
    private static function crossing(array $time, array $values, float $level, bool $isRising): float
    {
        $n = count($values);
        $first = $last = null;
        for ($i = 1; $i < $n; $i++) {
            $was = $isRising ? $values[$i - 1] < $level : $values[$i - 1] > $level;
            $is = $isRising ? $values[$i] >= $level : $values[$i] <= $level;
            if ($was && $is) {
                $part = ($level - $values[$i - 1]) / ($values[$i] - $values[$i - 1]);
                $last = $time[$i - 1] + $part * ($time[$i] - $time[$i - 1]);
                $first ??= $last;
            }
        }

        return (($first ?? $time[0]) + ($last ?? $time[0])) / 2;
    }
}
