<?php

declare(strict_types=1);

namespace Magpie\Core\Firmware;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\DrivenMotor;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Electrical\SpindleLine;
use Magpie\Core\Electrical\VoltageSelectors;
use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Input;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Axis;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\HomingBy;
use Magpie\Core\Machine\Same;
use Magpie\Core\Machine\Setting;
use Magpie\Core\Machine\SettingKind;
use Magpie\Core\Motion\AxisMotion;
use Magpie\Core\Motion\UsableTravel;
use Magpie\Core\Quantity\Quantity;

/** What must be set, linked and undone on the machine, from the parts that are fitted. */
final readonly class SettingsAudit implements Carried
{
    /**
     * Steps for a millimetre that were tuned by what was measured are off by so much at the most: half a per cent is the pitch
     * of a belt, and what takes a lead of 5 mm for 0.2 in is 1.6 % off (common practice, no source).
     */
    private const TUNED = 0.01;

    /** @var list<SettingLine> */
    private array $lines;

    /** @var array<string, list<SettingLine>> "kind/ref" → its lines */
    private array $byOwner;

    /** @var array<string, Setting> about → what the builder noted */
    private array $noted;

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $b): self => new self($b));
    }

    public function __construct(private Survey $survey)
    {
        $noted = [];
        foreach ($survey->build->settings as $setting) {
            $noted[$setting->about] = $setting;
        }
        $this->noted = $noted;
        $lines = [];
        foreach (
            [
                $this->board(),
                $this->axes(),
                $this->drivers(),
                $this->heaters(),
                $this->fans(),
                $this->links(),
                $this->temporary(),
            ] as $some
        ) {
            array_push($lines, ...$some);
        }
        array_push($lines, ...$this->unknown($lines));
        $this->lines = $lines;
        $owners = [];
        foreach ($lines as $line) {
            $owners[implode('/', $line->of)][] = $line;
        }
        $this->byOwner = $owners;
    }

    /** It is made again when anything it is made from has changed, and tells of which things the lines differ. */
    public function carriedTo(Survey $survey, array $changed, bool $stands): CarriedOver
    {
        if ($stands || $survey->reads === null) {
            return new CarriedOver($this, []);
        }
        [$next, $from] = $survey->reads->during(static fn (): self => new self($survey));
        $cells = [];
        foreach ($next->byOwner + $this->byOwner as $owner => $any) {
            if (! Same::values($next->byOwner[$owner] ?? null, $this->byOwner[$owner] ?? null)) {
                $cells[] = self::cell($owner);
            }
        }
        if (array_keys($next->byOwner) !== array_keys($this->byOwner)) {
            $cells[] = self::cell('all');
        }

        return new CarriedOver($next, $cells, $from);
    }

    private static function cell(string $owner): string
    {
        return "lines/{$owner}";
    }

    /**
     * @return list<SettingLine>
     */
    public function lines(): array
    {
        foreach (array_keys($this->byOwner) as $owner) {
            $this->survey->reads?->note(self::cell($owner));
        }

        return $this->lines;
    }

    /**
     * @return list<array{string, string}> what has settings: its kind, and its ref
     */
    public function owners(): array
    {
        $this->survey->reads?->note(self::cell('all'));

        $owners = [];
        foreach (array_keys($this->byOwner) as $owner) {
            [$kind, $ref] = explode('/', (string) $owner, 2) + [1 => ''];
            $owners[] = [$kind, $ref];
        }

        return $owners;
    }

    /**
     * @return list<SettingLine>
     */
    public function linesOf(string $kind, string $ref): array
    {
        $this->survey->reads?->note(self::cell("{$kind}/{$ref}"));

        return $this->byOwner["{$kind}/{$ref}"] ?? [];
    }

    /**
     * @return list<array<string, mixed>>
     */
    public function toArray(): array
    {
        return array_map(static fn (SettingLine $l): array => $l->toArray(), $this->lines);
    }

    /**
     * @param  array{string, string}  $of
     * @param  list<string>  $or
     * @param  list<Input>  $rests
     */
    private function line(
        string $key,
        array $of,
        string $label,
        ?string $wants,
        string $why,
        bool $grave = false,
        string $kind = 'setting',
        bool $atMost = false,
        array $or = [],
        array $rests = [],
        float $near = 0.0,
    ): SettingLine {
        return new SettingLine(
            $key,
            $kind,
            $of,
            $label,
            $wants === null ? null : str_replace("\u{a0}", ' ', $wants),
            $why,
            $grave,
            $this->noted[$key] ?? null,
            $atMost,
            $or,
            $rests,
            $near,
        );
    }

    /**
     * @return list<SettingLine>
     */
    private function board(): array
    {
        $of = ['build', 'firmware'];
        $lines = [];
        if ([...$this->survey->build->fittedThat(Ability::Heats)] !== []) {
            $lines[] = $this->line(
                'firmware.runaway',
                $of,
                'Thermal-runaway protection',
                'present',
                'a heater is fitted',
                true,
            );
        }
        $spindles = [...$this->survey->build->fittedThat(Ability::SetsSpeed)];
        foreach ($spindles as $ref => $drive) {
            $lines[] = $this->line(
                "drive.{$ref}.reverse",
                $of,
                "Reverse on {$drive->need->role}",
                'locked out',
                'a cutter that turns backwards unscrews itself',
                true,
            );
            $lines[] = $this->line(
                "drive.{$ref}.speed",
                $of,
                "Speed source of {$drive->need->role}",
                $drive->part->spec('speed_command')?->choice(),
                'a start word without a speed word turns nothing',
                rests: Input::ofSpecs($drive->part, 'speed_command'),
            );
            $spindle = SpindleLine::spindleOf(Circuits::of($this->survey)->topology, (string) $ref);
            $lines[] = $this->line(
                "drive.{$ref}.full_scale",
                $of,
                "Power word for full speed of {$drive->need->role}",
                $spindle?->part->spec('top_speed')?->nominal()?->text(),
                'the speed at which the spindle is told to turn its fastest; another turns it too fast or too slow',
                true,
                rests: $spindle === null ? [] : Input::ofSpecs($spindle->part, 'top_speed'),
            );
        }

        return $lines;
    }

    /**
     * @return list<SettingLine>
     */
    private function axes(): array
    {
        $lines = [];
        foreach ($this->survey->build->axes as $ref => $axis) {
            $of = ['axis', $ref];
            if ($axis->drive->motors !== []) {
                [$steps, $stepsRest] = $this->steps($axis);
                $lines[] = $this->line(
                    "axis.{$ref}.steps_per_mm",
                    $of,
                    "Steps for a millimetre, {$axis->name}",
                    $steps,
                    'motor, microsteps and the screw or pulley',
                    true,
                    rests: $stepsRest,
                    near: self::TUNED,
                );
                $lines[] = $this->line(
                    "axis.{$ref}.direction",
                    $of,
                    "Direction of {$axis->name}",
                    'tried by hand',
                    'a wrong one drives it into its stop',
                    true,
                );
            }
            if ($axis->homing->by !== null) {
                $lines[] = $this->line(
                    "axis.{$ref}.homing",
                    $of,
                    "Homing of {$axis->name}",
                    $axis->homing->by->value,
                    'what is fitted there',
                    true,
                );
            }
            [$usable, $usableRests] = $this->usable($axis);
            if ($axis->rail !== null || $axis->span !== null) {
                $lines[] = $this->line(
                    "axis.{$ref}.travel",
                    $of,
                    "Travel limit of {$axis->name}, at most",
                    // No longer than it is: rounded down.
                    $usable === null ? null : floor($usable->in('mm') * 10 + 1e-6) / 10 .' mm',
                    'the travel that is left',
                    true,
                    atMost: true,
                    rests: $usableRests,
                );
            }
        }

        return $lines;
    }

    /**
     * @return list<SettingLine>
     */
    private function drivers(): array
    {
        $lines = [];
        foreach ($this->survey->build->fittedThat(Ability::FeedsPhases) as $ref => $driver) {
            $set = $driver->part->spec('set_current')?->nominal();
            $micro = $driver->part->spec('microsteps')?->nominal();
            $lines[] = $this->line(
                "driver.{$ref}.current",
                ['need', $ref],
                "Current of {$driver->need->role}, rms",
                $set?->text(),
                'set so that motor and driver stay cool',
                true,
                rests: Input::ofSpecs($driver->part, 'set_current'),
            );
            if ($micro !== null) {
                $lines[] = $this->line(
                    "driver.{$ref}.microsteps",
                    ['need', $ref],
                    "Microsteps of {$driver->need->role}",
                    $micro->text(),
                    'what the steps for a millimetre are worked out with',
                    true,
                    rests: Input::ofSpecs($driver->part, 'microsteps'),
                );
            }
        }

        return $lines;
    }

    /**
     * @return list<SettingLine>
     */
    private function heaters(): array
    {
        $lines = [];
        foreach ($this->survey->build->fittedThat(Ability::SensesHeat) as $ref => $thermistor) {
            $table = $thermistor->part->spec('table')?->value;
            $lines[] = $this->line(
                "thermistor.{$ref}.table",
                ['need', $ref],
                "Table of {$thermistor->need->role}",
                is_string($table) ? $table : null,
                'another table reads another temperature',
                true,
                rests: Input::ofSpecs($thermistor->part, 'table'),
            );
            // What it sits in says which lining counts; where nobody has said it, the weakest of all does.
            $host = $thermistor->need->host();
            $stands = [[$thermistor->part, 'highest_temperature']];
            $seat = $host === null ? null : $this->survey->build->fitted($host);
            if ($seat !== null) {
                $stands[] = [$seat->part, 'material_limit'];
            }
            foreach ($this->survey->build->fittedThat(Ability::Melts) as $hot => $fitted) {
                if ($host === null || $host === (string) $hot) {
                    $stands[] = [$fitted->part, 'lining_limit'];
                }
            }
            $limits = array_values(array_filter(array_map(
                static fn (array $of): ?Quantity => $of[0]->spec($of[1])?->mostStood(),
                $stands,
            )));
            $top = $limits === [] ? null : Quantity::min(...$limits);
            $lines[] = $this->line(
                "thermistor.{$ref}.top",
                ['need', $ref],
                "Highest temperature for {$thermistor->need->role}, at most",
                $top?->text(),
                'the sensor, and what it sits in: its material, or the lining of its heat break',
                true,
                atMost: true,
                rests: array_merge(...array_map(static fn (array $of): array => Input::ofSpecs(...$of), $stands)),
            );
        }
        foreach ($this->survey->build->fittedThat(Ability::Heats) as $ref => $heater) {
            $lines[] = $this->line(
                "heater.{$ref}.crossed",
                ['need', $ref],
                "{$heater->need->role} heated alone, its own sensor watched",
                'tried',
                'crossed outputs show at once, and only then',
                true,
            );
        }

        return $lines;
    }

    /**
     * @return list<SettingLine>
     */
    private function fans(): array
    {
        $lines = [];
        foreach ($this->survey->build->fittedThat(Ability::Blows) as $ref => $fan) {
            if ($fan->part->spec('job')?->choice() === 'hot end' || $fan->part->spec('job')?->choice() === 'board') {
                $sensed = $fan->part->spec('speed_sense')?->flag() === true;
                $lines[] = $this->line(
                    "fan.{$ref}.watched",
                    ['need', $ref],
                    "{$fan->need->role} watched",
                    $sensed ? 'speed signal' : 'spin check before each run',
                    $sensed ? 'it reports its speed' : 'it can die unseen',
                    or: $sensed ? ['spin check before each run'] : [],
                    rests: Input::ofSpecs($fan->part, 'speed_sense'),
                );
            }
        }

        return $lines;
    }

    /**
     * The jumper sheet: selectors, driver modes, links.
     *
     * @return list<SettingLine>
     */
    private function links(): array
    {
        $lines = [];
        $ports = PortAllocation::of($this->survey);
        foreach ($ports->matching->banks as $bank => $volts) {
            [$board, $name] = explode('/', $bank, 2);
            $lines[] = $this->line(
                VoltageSelectors::key($board, $name),
                ['need', $board],
                "Selector {$name} on {$this->survey->build->roleOf($board)}",
                $volts?->text(),
                'the voltage of what hangs behind it',
                true,
                'link',
            );
        }
        $homing = [];
        foreach ($this->survey->build->axes as $axis) {
            foreach ($axis->homing->by === HomingBy::Sensorless ? $axis->drive->motors : [] as $motor) {
                $homing[$motor] = true;
            }
        }
        foreach ($this->survey->build->fittedThat(Ability::FeedsPhases) as $ref => $driver) {
            $mode = $driver->part->spec('mode')?->choice();
            if ($mode !== null) {
                $lines[] = $this->line(
                    "slot.{$ref}.mode",
                    ['need', $ref],
                    "Links under {$driver->need->role}",
                    "for {$mode}",
                    'how the board speaks to this driver',
                    true,
                    'link',
                    rests: Input::ofSpecs($driver->part, 'mode'),
                );
            }
            $sensorless = array_filter(
                DrivenMotor::of($this->survey, $ref)->motors ?? [],
                static fn (Fitted $m): bool => isset($homing[$m->need->ref]),
            );
            if ($this->survey->build->axes !== [] && $mode !== 'step and direction') {
                $lines[] = $this->line(
                    "slot.{$ref}.sensorless",
                    ['need', $ref],
                    "Sensorless link of {$driver->need->role}",
                    $sensorless === [] ? 'open' : 'set',
                    $sensorless === []
                        ? 'its axis homes by a switch, whose input the link would take'
                        : 'its axis homes without a switch',
                    false,
                    'link',
                );
            }
        }
        foreach ($this->survey->build->fittedThat(Ability::HasChannels) as $ref => $board) {
            if ($board->part->spec('link')?->choice() === 'differential bus') {
                $lines[] = $this->line(
                    "bus.{$ref}.termination",
                    ['need', $ref],
                    "Termination at {$board->need->role}",
                    'set',
                    'it ends the bus; the other end has one too',
                    false,
                    'link',
                    rests: Input::ofSpecs($board->part, 'link'),
                );
            }
        }

        return $lines;
    }

    /**
     * @return list<SettingLine>
     */
    private function temporary(): array
    {
        $lines = [];
        foreach ($this->survey->build->settings as $setting) {
            if ($setting->kind === SettingKind::Temporary) {
                $lines[] = new SettingLine(
                    $setting->about,
                    'temporary',
                    ['build', 'temporary'],
                    $setting->about,
                    'undone',
                    "by: {$setting->until}",
                    true,
                    $setting,
                );
            }
        }

        return $lines;
    }

    /**
     * Settings that were noted under a name nothing asks for: a slip of the pen, most likely.
     *
     * @param  list<SettingLine>  $lines  those that are asked for
     * @return list<SettingLine>
     */
    private function unknown(array $lines): array
    {
        $asked = array_map(static fn (SettingLine $l): string => $l->key, $lines);
        $unknown = [];
        foreach ($this->survey->build->settings as $setting) {
            if (! in_array($setting->about, $asked, true)) {
                $nearest = null;
                foreach ($asked as $key) {
                    $far = levenshtein($key, $setting->about);
                    $nearest = $nearest === null || $far < $nearest[0] ? [$far, $key] : $nearest;
                }
                $unknown[] = new SettingLine(
                    $setting->about,
                    'unknown',
                    ['build', 'unknown'],
                    $setting->about,
                    null,
                    $nearest === null
                        ? 'nothing that is fitted asks for it'
                        : "nothing that is fitted asks for it; the nearest that is asked for is {$nearest[1]}",
                    false,
                    $setting,
                );
            }
        }

        return $unknown;
    }

    /**
     * @return array{string|null, list<Input>} steps for a millimetre, and what they rest on
     */
    private function steps(Axis $axis): array
    {
        $inquiry = AxisMotion::figures($this->survey, $axis);
        try {
            $steps = AxisMotion::of($this->survey, $axis)->stepsPerMillimetre($inquiry)->in('');

            return [(string) round($steps, 3), $inquiry->inputs()];
        } catch (InputMissing) {
            return [null, []];
        }
    }

    /**
     * @return array{Quantity|null, list<Input>} the travel that is left, and what it rests on
     */
    private function usable(Axis $axis): array
    {
        $inquiry = AxisMotion::figures($this->survey, $axis);
        try {
            return [UsableTravel::of($inquiry, $axis), $inquiry->inputs()];
        } catch (InputMissing) {
            return [null, []];
        }
    }
}
