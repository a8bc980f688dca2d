<?php

declare(strict_types=1);

namespace Magpie\Core\Commissioning;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Running\AsMeasured;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Thermal\Rules\HeatUp;

/**
 * What instruments should show on this machine before it runs, worked from what is fitted: C1 of the handbook. A tenth either way
 * where a sheet gives no tolerance (common practice, no source); copper and sensors between 15 °C and the hottest air of the site.
 * Earth bond at most 0.1 Ω and insulation at least 1 MΩ: IEC 60204-1 §18.2 and §18.3, from memory.
 */
final readonly class Expectations
{
    /** Change of the resistance of copper for one kelvin, about 20 °C: IEC 60028, from memory. */
    private const COPPER = 0.00393;

    private const COLDEST = 15.0;

    private const ZERO = 273.15;

    public static function of(Survey $survey): self
    {
        return new self($survey);
    }

    public function __construct(private Survey $survey)
    {
    }

    /**
     * All of them. Nothing is kept between two questions: what is read for one is noted with whoever asks.
     *
     * @return array<string, Expected> by key
     */
    public function all(): array
    {
        $all = [];
        foreach ($this->survey->build->allFitted() as $fitted) {
            $all += self::keyed($this->on($fitted));
        }
        foreach ($this->survey->build->axes as $axis) {
            $all += self::keyed([$this->travel($axis)]);
        }

        return $all + self::keyed($this->atTheWall());
    }

    /** What is expected of one thing, by what it is a reading of; null where nothing is. */
    public function one(Reading $reading): ?Expected
    {
        $axis = $reading->axis === null ? null : $this->survey->build->axes[$reading->axis] ?? null;
        $fitted = $reading->need === null ? null : $this->survey->build->fitted($reading->need);
        $found = match (true) {
            $reading->what === Measured::WallPower => self::keyed($this->atTheWall()),
            $axis !== null => self::keyed([$this->travel($axis)]),
            $fitted !== null => self::keyed($this->on($fitted)),
            default => [],
        };

        return $found[$reading->of()] ?? null;
    }

    /**
     * @param  iterable<Expected>  $some
     * @return array<string, Expected>
     */
    private static function keyed(iterable $some): array
    {
        $keyed = [];
        foreach ($some as $one) {
            $keyed[$one->key()] = $one;
        }

        return $keyed;
    }

    /**
     * @return iterable<Expected>
     */
    private function on(Fitted $fitted): iterable
    {
        foreach ($this->ofOne($fitted) as $one) {
            yield $one->ofEach($fitted->need->quantity);
        }
    }

    /**
     * @return iterable<Expected>
     */
    private function ofOne(Fitted $fitted): iterable
    {
        foreach ($fitted->part->family->measured() as $what) {
            yield match ($what) {
                Measured::ColdResistance => $this->heater($fitted),
                Measured::PhaseResistance => $this->phases($fitted),
                Measured::SensorResistance => $this->sensor($fitted),
                default => $this->output($fitted),
            };
        }
        $heating = $this->heating($fitted);
        if ($heating !== null) {
            yield $heating;
        }
        foreach ($fitted->part->ports as $port) {
            if ($port->kind === PortKind::Earth && $this->isEarthed("{$fitted->need->ref}.{$port->name}")) {
                yield new Expected(
                    Measured::Bond,
                    "Earth bond of {$fitted->need->role}",
                    $fitted->need->ref,
                    Quantity::of(0, 'Ω'),
                    null,
                    Quantity::of(0.1, 'Ω'),
                    'At most 0.1 Ω from the earth pin of the plug to bare metal of it (IEC 60204-1 §18.2, from memory).',
                    'Unplugged. Take off what the test leads have by themselves; a bond tester drives 10 A.',
                );
            }
            if ($port->kind === PortKind::Source && $port->mains) {
                yield new Expected(
                    Measured::Insulation,
                    "Insulation of {$fitted->need->role}",
                    $fitted->need->ref,
                    null,
                    Quantity::of(1, 'MΩ'),
                    null,
                    'At least 1 MΩ at 500 V DC between live parts and earth (IEC 60204-1 §18.3, from memory).',
                    'For the practised only, with drives and electronics disconnected.',
                    asked: false,
                );
            }
            $arriving =
                $port->kind === PortKind::Inlet && ! $port->mains && $fitted->part->can(Ability::HasChannels)
                    ? $this->arriving($fitted, $port->name)
                    : null;
            if ($arriving !== null) {
                yield $arriving;
            }
        }
    }

    private function isEarthed(string $port): bool
    {
        foreach ($this->survey->build->runs() as [$from, $to]) {
            if ($from->text() === $port || $to->text() === $port) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return list<Input> values of a sheet that a band rests on
     */
    private static function rests(Fitted $fitted, string ...$keys): array
    {
        $rests = [];
        foreach ($keys as $key) {
            $spec = AsMeasured::sheet($fitted->part, $key);
            if ($spec?->nominal() !== null) {
                $rests[] = new Input(
                    $fitted->part->family->field($key)->label ?? $key,
                    '',
                    $spec->nominal(),
                    $spec->evidence,
                    $spec->source,
                    "parts/{$fitted->part->ref}/specs/{$key}",
                );
            }
        }

        return $rests;
    }

    /** A share either way: what the sheet says, or a tenth. */
    private static function share(?Spec ...$specs): float
    {
        $share = null;
        foreach ($specs as $spec) {
            $share = $spec?->tolerance === null ? $share : max($share ?? 0.0, $spec->tolerance->in(''));
        }

        return $share ?? 0.1;
    }

    private function heater(Fitted $fitted): Expected
    {
        $role = $fitted->need->role;
        $how = 'Cold, at its plug, nothing else on the lead; take off what the test leads have by themselves.';
        $cold = AsMeasured::sheet($fitted->part, 'cold_resistance');
        $volts = AsMeasured::sheet($fitted->part, 'rated_voltage');
        $power = AsMeasured::sheet($fitted->part, 'rated_power');
        if ($cold?->nominal() !== null) {
            $share = self::share($cold);

            return self::around(
                Measured::ColdResistance,
                "Resistance of {$role}",
                $fitted->need->ref,
                $cold->nominal(),
                $share,
                "{$cold->nominal()} by its sheet",
                $how,
                self::rests($fitted, 'cold_resistance'),
            );
        }
        if ($volts?->nominal() === null || $power?->nominal() === null || ! $power->nominal()->isPositive()) {
            return self::unknown(Measured::ColdResistance, "Resistance of {$role}", $fitted->need->ref, $how, [
                "rated power and voltage of {$role}",
            ]);
        }
        $nominal = $volts->nominal()->squared()->over($power->nominal())->to('Ω');

        return self::around(
            Measured::ColdResistance,
            "Resistance of {$role}",
            $fitted->need->ref,
            $nominal,
            self::share($power),
            "R = V² / P = ({$volts->nominal()})² / {$power->nominal()} = {$nominal->rounded(3)}",
            $how,
            self::rests($fitted, 'rated_voltage', 'rated_power'),
        );
    }

    /** How long a bed or chamber takes to its target; none for what has no plate. */
    private function heating(Fitted $fitted): ?Expected
    {
        if (! in_array($fitted->part->spec('place')?->choice(), ['bed', 'chamber'], true)) {
            return null;
        }
        $subject = new Subject('need', $fitted->need->ref, $fitted->need->role, [$fitted->need->ref]);
        try {
            $found = (new HeatUp)->judge(Inquiry::forFigures($this->survey, $subject), $this->survey);
        } catch (InputMissing) {
            return null;
        }
        $time = $found->figures['time'][1] ?? null;

        return $time === null
            ? null
            : new Expected(
                Measured::HeatUp,
                "Time to heat up {$fitted->need->role}",
                $fitted->need->ref,
                $time,
                $time->times(0.5),
                $time->times(1.4),
                "{$time->rounded(
                    3,
                )} by mass, power and losses; 40 % more is still right, half of it says that the sensor is not on the plate (common practice, no source).",
                'From the air of the room to its target, somebody beside it.',
                rests: $found->inputs,
                asked: false,
            );
    }

    private function phases(Fitted $fitted): Expected
    {
        $label = "Each coil of {$fitted->need->role}";
        $how =
            'Unplugged, between the two wires of one coil, then of the other: both alike, and no way from coil to coil.';
        $sheet = AsMeasured::sheet($fitted->part, 'phase_resistance');
        $nominal = $sheet?->nominal();
        if ($nominal === null) {
            return self::unknown(Measured::PhaseResistance, $label, $fitted->need->ref, $how, [
                "phase resistance of {$fitted->need->role}",
            ]);
        }
        $share = self::share($sheet);
        $warm = $this->warmest();
        $low = $nominal->times((1 - $share) * (1 + self::COPPER * (self::COLDEST - 20)));
        $high = $nominal->times((1 + $share) * (1 + self::COPPER * ($warm - 20)));

        return new Expected(
            Measured::PhaseResistance,
            $label,
            $fitted->need->ref,
            $nominal,
            $low,
            $high,
            sprintf(
                '%s at 20 °C by its sheet, ± %d %%, copper between %d and %d °C: R = R₂₀ (1 + 0.00393 (T − 20)).',
                $nominal,
                (int) round($share * 100),
                (int) self::COLDEST,
                (int) $warm,
            ),
            $how,
            rests: self::rests($fitted, 'phase_resistance'),
        );
    }

    private function sensor(Fitted $fitted): Expected
    {
        $label = "Sensor {$fitted->need->role}";
        $how = 'Unplugged from the board, at the temperature of the room. Warm it in the hand: it must fall.';
        $r25 = AsMeasured::sheet($fitted->part, 'resistance_25')?->nominal();
        $beta = AsMeasured::sheet($fitted->part, 'beta')?->nominal();
        if ($r25 === null || $beta === null) {
            return self::unknown(Measured::SensorResistance, $label, $fitted->need->ref, $how, [
                "resistance at 25 °C and beta of {$fitted->need->role}",
            ]);
        }
        $warm = $this->warmest();
        $at = static fn (float $celsius): Quantity => $r25->times(self::thermistor($beta->in('K'), $celsius));

        return new Expected(
            Measured::SensorResistance,
            $label,
            $fitted->need->ref,
            $at(20.0)->rounded(4),
            $at($warm)->times(0.95),
            $at(self::COLDEST)->times(1.05),
            sprintf(
                'R = R₂₅ · exp(B (1/T − 1/298.15)): %s and B %s give %s at 20 °C; the band is %d to %d °C, ± 5 %%.',
                $r25,
                $beta,
                $at(20.0)->rounded(4),
                (int) self::COLDEST,
                (int) $warm,
            ),
            $how,
            rests: self::rests($fitted, 'resistance_25', 'beta'),
        );
    }

    /** Times its resistance at 25 °C that a thermistor has: the beta equation. */
    public static function thermistor(float $beta, float $celsius): float
    {
        return exp($beta * (1 / ($celsius + self::ZERO) - 1 / (25 + self::ZERO)));
    }

    private function output(Fitted $fitted): Expected
    {
        $label = "Output of {$fitted->need->role}";
        $how = 'Alone, with nothing on its output, before anything is plugged in behind it.';
        $sheet = AsMeasured::sheet($fitted->part, 'output_voltage');
        $nominal = $sheet?->nominal();
        if ($nominal === null) {
            return self::unknown(Measured::OutputVoltage, $label, $fitted->need->ref, $how, [
                "output voltage of {$fitted->need->role}",
            ]);
        }
        $share = AsMeasured::sheet($fitted->part, 'voltage_tolerance')?->nominal() ?? $sheet->tolerance;
        $expected = self::around(
            Measured::OutputVoltage,
            $label,
            $fitted->need->ref,
            $nominal,
            $share?->in('') ?? 0.05,
            "{$nominal} by its sheet",
            $how,
            self::rests($fitted, 'output_voltage', 'voltage_tolerance'),
        );

        return $share === null && $fitted->part->family->field('voltage_tolerance') !== null
            ? $expected->without("output tolerance of {$fitted->need->role}")
            : $expected;
    }

    /** What arrives at a board, over all scenarios that are solved. */
    private function arriving(Fitted $fitted, string $port): ?Expected
    {
        $circuits = Circuits::of($this->survey);
        $node = $circuits->topology->node("{$fitted->need->ref}.{$port}");
        if ($node === null || ! $circuits->topology->isReached($node)) {
            return null;
        }
        $volts = [];
        foreach ($circuits->flows() as $flow) {
            $here = $flow->volts($node);
            $volts = $here === null ? $volts : [...$volts, $here->in('V')];
        }
        $source = $circuits->topology->sourceOf($node);
        $held = $source === null ? null : $circuits->heldBy($source);
        if ($held !== null) {
            $volts[] = $held->in('V');
        }
        $label = "Voltage at {$fitted->need->role}".($port === 'power' ? '' : ", {$port}");
        $how = 'At its own terminals, on its own: drivers, heaters and motors unplugged.';
        if ($volts === []) {
            return self::unknown(Measured::Voltage, $label, $fitted->need->ref, $how, ['what feeds it'], $port);
        }

        return new Expected(
            Measured::Voltage,
            $label,
            $fitted->need->ref,
            Quantity::of(max($volts), 'V'),
            Quantity::of(min($volts) * 0.95, 'V'),
            Quantity::of(max($volts) * 1.05, 'V'),
            sprintf('%.3g to %.3g V arrive by the wiring, ± 5 %% for the supply.', min($volts), max($volts)),
            $how,
            $port,
        );
    }

    private function travel(Axis $axis): Expected
    {
        $how = 'Power off. Push it slowly from end to end: a motor that is pushed feeds its driver.';
        $label = "Travel of {$axis->name} by hand";
        $inquiry = Inquiry::forFigures($this->survey, Subject::ofAxis($axis));
        try {
            $usable = UsableTravel::of($inquiry, $axis)->to('mm');
        } catch (InputMissing) {
            return new Expected(
                Measured::Travel,
                $label,
                $axis->ref,
                null,
                null,
                null,
                'What the axis can travel is not known yet.',
                $how,
                missing: ["usable travel of {$axis->name}"],
                asked: false,
                onAxis: true,
            );
        }
        $configured = $axis->homing->configured;
        $least = $configured ?? $usable->times(0.98);

        return new Expected(
            Measured::Travel,
            $label,
            $axis->ref,
            $usable,
            $least,
            $usable->times(1.05),
            "{$usable->rounded(4)} by the parts of it".
                ($configured === null
                    ? '; 2 % less is still right (common practice, no source).'
                    : "; the settings allow {$configured}, and that much there has to be."),
            $how,
            rests: $inquiry->inputs(),
            asked: false,
            onAxis: true,
        );
    }

    /**
     * @return iterable<Expected>
     */
    private function atTheWall(): iterable
    {
        foreach ((new PowerLedger($this->survey))->toArray() as $scenario) {
            $watts = 0.0;
            $missing = [];
            $any = false;
            foreach ($scenario['outputs'] as $output) {
                if (! $output['mains']) {
                    continue;
                }
                $any = true;
                array_push($missing, ...$output['missing']);
                foreach ($output['loads'] as $load) {
                    $watts += is_float($load['watts']) ? $load['watts'] : 0.0;
                }
            }
            if (! $any) {
                continue;
            }
            $label = "Power at the wall: {$scenario['name']}";
            $how = 'A watt meter in the plug, once it has settled.';
            yield $missing !== [] || $watts <= 0
                ? self::unknown(
                    Measured::WallPower,
                    $label,
                    null,
                    $how,
                    array_values(array_unique($missing)),
                    null,
                    $scenario['ref'],
                    false,
                )
                : new Expected(
                    Measured::WallPower,
                    $label,
                    null,
                    Quantity::of($watts, 'W'),
                    Quantity::of($watts * 0.5, 'W'),
                    Quantity::of($watts * 1.15, 'W'),
                    sprintf(
                        'All that runs in it takes %.0f W at the most; from half of that (loads rest) to 15 %% more (common practice, no source).',
                        $watts,
                    ),
                    $how,
                    scenario: $scenario['ref'],
                    rests: $this->wallRests($scenario['ref']),
                    asked: false,
                );
        }
    }

    /**
     * @return list<Input> what is known of all that the mains feed in a scenario
     */
    private function wallRests(string $scenario): array
    {
        $circuits = Circuits::of($this->survey);
        $rests = [];
        foreach ($circuits->flows() as $flow) {
            foreach ($flow->scenario->ref === $scenario ? $circuits->topology->mains() : [] as $node) {
                foreach ($flow->demands($node) as $demand) {
                    array_push($rests, ...$demand->inputs);
                }
            }
        }

        return $rests;
    }

    private function warmest(): float
    {
        return max(25.0, $this->survey->build->site->ambient?->in('°C') ?? 30.0);
    }

    /**
     * @param  list<Input>  $rests
     */
    private static function around(
        Measured $what,
        string $label,
        string $need,
        Quantity $nominal,
        float $share,
        string $why,
        string $how,
        array $rests,
    ): Expected {
        return new Expected(
            $what,
            $label,
            $need,
            $nominal,
            $nominal->times(1 - $share),
            $nominal->times(1 + $share),
            sprintf('%s, ± %s %%.', $why, round($share * 100, 1)),
            $how,
            rests: $rests,
        );
    }

    /**
     * @param  list<string>  $missing
     */
    private static function unknown(
        Measured $what,
        string $label,
        ?string $need,
        string $how,
        array $missing,
        ?string $port = null,
        ?string $scenario = null,
        bool $asked = true,
    ): Expected {
        return new Expected(
            $what,
            $label,
            $need,
            null,
            null,
            null,
            'There is no band: '.implode(', ', $missing).' is not known.',
            $how,
            $port,
            $scenario,
            $missing,
            asked: $asked,
        );
    }
}
