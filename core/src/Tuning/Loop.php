<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/** A heater's log worked into a model, gains by two published methods, and the overshoot each would give (C11 of the handbook). */
final readonly class Loop
{
    /** No room is as warm, °C. */
    private const WARM = 40.0;

    /**
     * @param  list<float>  $time  s
     * @param  list<float>  $temperature  °C
     * @param  float  $step  per cent of power
     * @param  float|null  $air  °C before the step; the first of the log where null
     */
    public function __construct(
        private array $time,
        private array $temperature,
        private float $step,
        private ?float $air = null,
    ) {
    }

    public static function of(HeaterLog $log): self
    {
        return new self($log->time, $log->temperature, $log->step, $log->air);
    }

    /**
     * @param  float|null  $target  °C it is to be held at; where it was logged to where null
     * @return array{gain: float, dead: float, constant: float, rise: float, settled: bool, most: float, target: float,
     *     methods: list<array{name: string, kp: float, ti: float, td: float, p: float, i: float, d: float, overshoot: float,
     *     reached: float|null, curve: list<array{float, float}>}>, measured: list<array{float, float}>,
     *     model: list<array{float, float}>, says: list<string>}
     *
     * @throws CannotTune
     */
    public function toArray(?float $target = null): array
    {
        $model = StepResponse::fit($this->time, $this->temperature, $this->step, $this->air);
        $air = $this->air ?? $this->temperature[0];
        $target ??= $air + $model->rise;
        $says = [];
        if (! $model->settled) {
            $says[] = 'It was still rising when the log ends: gain and time constant are too small. Log for longer.';
        }
        if ($air > self::WARM) {
            $says[] = sprintf(
                'It began at %.0f °C: if it was heated before, all its power brings it less far than is said here, and its gains hold.',
                $air,
            );
        }
        if ($target - $air > $model->most()) {
            $says[] = sprintf('All its power brings it to %.0f °C: %.0f °C is out of reach.', $air + $model->most(), $target);
        }
        $ways = ['by a model, softer' => $model->byModel()];
        if ($model->dead > 0) {
            $ways = ['by the reaction curve' => $model->byReactionCurve()] + $ways;
        }
        $methods = [];
        foreach ($ways as $name => $gains) {
            $done = $model->simulated($gains, max(1.0, $target - $air));
            $methods[] = [
                'name' => $name,
                'kp' => round($gains['kp'], 4),
                'ti' => round($gains['ti'], 3),
                'td' => round($gains['td'], 3),
                // The same as parallel gains, in per cent: P, I for a second, D.
                'p' => round($gains['kp'], 4),
                'i' => round($gains['kp'] / $gains['ti'], 5),
                'd' => round($gains['kp'] * $gains['td'], 4),
                'overshoot' => round($done['overshoot'], 2),
                'reached' => $done['reached'] === null ? null : round($done['reached'], 1),
                'curve' => array_map(static fn (array $at): array => [$at[0], round($at[1] + $air, 3)], $done['curve']),
            ];
        }
        $every = max(1, intdiv(count($this->time), 200));
        $measured = $fitted = [];
        for ($i = 0, $n = count($this->time); $i < $n; $i += $every) {
            $t = $this->time[$i] - $this->time[0];
            $measured[] = [round($t, 3), round($this->temperature[$i], 3)];
            $rise = $t < $model->dead ? 0.0 : $model->rise * (1 - exp(-($t - $model->dead) / $model->constant));
            $fitted[] = [round($t, 3), round($air + $rise, 3)];
        }

        return [
            'gain' => round($model->gain, 5),
            'dead' => round($model->dead, 3),
            'constant' => round($model->constant, 3),
            'rise' => round($model->rise, 2),
            'settled' => $model->settled,
            'most' => round($air + $model->most(), 1),
            'target' => round($target, 1),
            'methods' => $methods,
            'measured' => $measured,
            'model' => $fitted,
            'says' => $says,
        ];
    }
}
