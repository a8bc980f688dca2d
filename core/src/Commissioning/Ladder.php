<?php

declare(strict_types=1);

namespace Magpie\Core\Commissioning;

use Magpie\Core\Electrical\Stops;
use Magpie\Core\Firmware\SettingLine;
use Magpie\Core\Firmware\SettingsAudit;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Machine\Running\AsMeasured;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\PowerAttempt;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Machine\Running\TestPiece;
use Magpie\Core\Work\Gate;

/**
 * The way from a machine that was never under power to one that is signed off, made from what is fitted: C of the handbook. No
 * mains before covers and the earth, no heat before its sensor is proven, no motion before the stops. Rungs open and close by
 * themselves as facts change; a reason lets one pass, and covers only what kept it then.
 *
 * @phpstan-type Draft array{key: string, stage: string, title: string, does: string, live: list<string>, gates: list<string>,
 *     looks: array<string, string>, expected: list<Expected>, cautions: list<string>}
 */
final class Ladder
{
    public const STAGES = [
        'dry',
        'unpowered',
        'supplies alone',
        'boards alone',
        'settings',
        'motors, one at a time',
        'stops',
        'homing',
        'heat, one at a time',
        'tool',
        'all together',
        'tuning',
        'test piece',
        'sign-off',
    ];

    private readonly Build $build;

    /** @var array<string, Expected> by key */
    private readonly array $expectations;

    private readonly Pointers $pointers;

    /** @var array<string, Reading> */
    private readonly array $readings;

    /** @var list<string> why nothing may be powered */
    private readonly array $dangers;

    /** @var list<Rung> in order */
    public array $rungs = [];

    /** @var list<array{int, Draft}> place of its stage, and what a rung is made of */
    private array $drafts = [];

    /**
     * @param  list<Finding>  $findings  open ones of the inspection: those of danger keep power away
     */
    public function __construct(private readonly Survey $survey, array $findings)
    {
        $this->build = $survey->build;
        $this->expectations = Expectations::of($survey)->all();
        $this->pointers = new Pointers($this->build, $this->expectations);
        $this->readings = AsMeasured::counting($this->build);
        $dangers = [];
        foreach ($findings as $finding) {
            if ($finding->verdict === Verdict::Danger) {
                $dangers[] = "{$finding->card->id} {$finding->subject->label}: {$finding->headline}";
            }
        }
        foreach ($this->build->faults as $fault) {
            if ($fault->forbidsPower()) {
                $dangers[] = "open danger: {$fault->what}";
            }
        }
        $this->dangers = array_map(static fn (string $one): string => mb_substr($one, 0, 500), $dangers);
        $this->dry();
        $this->unpowered();
        $this->supplies();
        $this->boards();
        $this->settings();
        $this->motors();
        $this->stops();
        $this->homing();
        $this->heat();
        $this->tools();
        $this->together();
        $this->last();
        $this->climb();
    }

    /**
     * @param  list<string>  $live
     * @param  list<string>  $gates
     * @param  array<string, string>  $looks  key → what to look at
     * @param  list<Expected>  $expected
     * @param  list<string>  $cautions
     */
    private function rung(
        string $stage,
        string $key,
        string $title,
        string $does,
        array $live = [],
        array $gates = [],
        array $looks = [],
        array $expected = [],
        array $cautions = [],
    ): void {
        $this->drafts[] = [
            (int) array_search($stage, self::STAGES, true),
            compact('key', 'stage', 'title', 'does', 'live', 'gates', 'looks', 'expected', 'cautions'),
        ];
    }

    /** Each rung waits for those of the stages before its own. */
    private function climb(): void
    {
        usort($this->drafts, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $waits = $here = null;
        $at = -1;
        foreach ($this->drafts as [$stage, $draft]) {
            if ($stage !== $at) {
                [$at, $waits, $here] = [$stage, $here ?? $waits, null];
            }
            $record = $this->build->rungs[$draft['key']] ?? null;
            $looks = [];
            foreach ($draft['looks'] as $key => $says) {
                $looks[] = new Look((string) $key, $says, in_array((string) $key, $record->ticks ?? [], true));
            }
            $rung = new Rung(
                $draft['key'],
                $draft['stage'],
                $draft['title'],
                $draft['does'],
                $draft['live'],
                $draft['gates'],
                $looks,
                array_values(array_map($this->shown(...), $draft['expected'])),
                $draft['cautions'],
                $record,
                $waits,
            );
            $here ??= $rung->isPassed() ? null : $rung->key;
            $this->rungs[] = $rung;
        }
    }

    /**
     * @return array{expected: Expected, reading: Reading|null, verdict: Verdict, points: list<string>}
     */
    private function shown(Expected $expected): array
    {
        $reading = $this->readings[$expected->key()] ?? null;

        return [
            'expected' => $expected,
            'reading' => $reading,
            'verdict' => $reading === null ? Verdict::Unproven : $expected->verdict($reading),
            'points' => $reading === null ? [] : $this->pointers->of($expected, $reading),
        ];
    }

    /** A part, or each of several. */
    private static function called(Fitted $fitted): string
    {
        $pieces = $fitted->need->quantity;

        return $fitted->need->role.($pieces > 1 ? ", each of {$pieces}" : '');
    }

    /**
     * @return list<Expected> of one part
     */
    private function expected(string $need, Measured $what): array
    {
        return array_values(
            array_filter(
                $this->expectations,
                static fn (Expected $e): bool => ! $e->onAxis && $e->where === $need && $e->what === $what,
            ),
        );
    }

    /** The key of a look at a part: on another part it is another look. */
    private function look(string $what, Fitted $fitted): string
    {
        return "{$what}@{$fitted->part->ref}";
    }

    /**
     * @return list<string>
     */
    private function power(): array
    {
        $gates = $this->dangers;
        foreach ($this->build->leads as $lead) {
            if (Gate::isHalf($lead)) {
                $gates[] = "{$lead->ref} is joined at one end only";
            }
        }

        return $gates;
    }

    private function dry(): void
    {
        $open = [];
        foreach ($this->build->leads as $lead) {
            if (! $lead->made && count(array_filter($lead->ends, static fn ($end): bool => $end->made)) < 2) {
                $open[] = $lead->ref;
            }
        }
        $gates =
            $open === []
                ? []
                : [
                    count($open).
                    (count($open) === 1 ? ' lead is' : ' leads are').
                    ' not ticked as made: '.
                    implode(', ', array_slice($open, 0, 8)).
                    (count($open) > 8 ? ' …' : ''),
                ];
        $looks = [
            'plugs' => 'Each plug is in its socket, its row and its pin, by the list; plus and minus once more at every supply.',
            'loose' => 'No tool, screw, swarf or strand lies in it; spare leads are insulated and named.',
        ];
        if ($this->hasMains()) {
            $looks['covers'] = 'A cover is on everything that carries mains.';
        }
        $expected = [];
        foreach ($this->build->axes as $axis) {
            $looks[
                "swept-{$axis->ref}"
            ] = "{$axis->name} pushed by hand over its whole travel: nothing binds, snags or pulls.";
        }
        foreach ($this->expectations as $one) {
            $expected = $one->onAxis ? [...$expected, $one] : $expected;
        }
        $this->rung(
            'dry',
            'dry',
            'Look at it, the plug in your hand',
            'Everything that can be seen and moved is seen and moved before any power.',
            [],
            $gates,
            $looks,
            $expected,
            ['pinch'],
        );
    }

    private function hasMains(): bool
    {
        foreach ($this->build->allFitted() as $fitted) {
            foreach ($fitted->part->ports as $port) {
                if ($port->mains && $port->kind !== PortKind::Earth) {
                    return true;
                }
            }
        }

        return false;
    }

    private function unpowered(): void
    {
        $expected = [];
        foreach ($this->expectations as $one) {
            if (
                in_array(
                    $one->what->value,
                    ['bond', 'insulation', 'cold_resistance', 'phase_resistance', 'sensor_resistance'],
                    true,
                )
            ) {
                $expected[] = $one;
            }
        }
        $this->rung(
            'unpowered',
            'unpowered',
            'Measure it, unplugged',
            'Resistances say whether the right part is on the right lead; the earth bond says whether a fault will blow a fuse or a person.',
            [],
            [],
            [
                'short' => 'Plus to minus of each supply rail: no short.',
            ],
            $expected,
            $this->hasMains() ? ['mains', 'earth'] : [],
        );
    }

    private function supplies(): void
    {
        foreach ($this->build->fittedThat(Ability::Converts) as $ref => $fitted) {
            $mains = false;
            foreach ($fitted->part->ports as $port) {
                $mains = $mains || ($port->mains && $port->kind !== PortKind::Earth);
            }
            $looks = [$this->look('alone', $fitted) => 'All that hangs on its output is unplugged.'];
            $selector = $fitted->part->spec('mains_selector')?->choice();
            if ($selector === '115 V' || $selector === '230 V') {
                $looks[
                    $this->look('selector', $fitted)
                ] = "Its selector stands at the voltage of the site ({$this->site()}).";
            }
            $looks[$this->look('quiet', $fitted)] = 'On for a minute: no smell, no hum, no spark, the breaker holds.';
            $this->rung(
                'supplies alone',
                "supply-{$ref}",
                self::called($fitted).' alone',
                'Switch it on at arm’s length with one hand, measure, switch off, wait until it has run down.',
                $mains ? ['mains up to it', $fitted->need->role] : [$fitted->need->role, 'what feeds it'],
                $this->power(),
                $looks,
                $this->expected((string) $ref, Measured::OutputVoltage),
                $mains ? ['mains', 'stored_charge'] : [],
            );
        }
    }

    private function site(): string
    {
        return $this->build->site->mainsVoltage?->text() ?? 'which nobody has said';
    }

    private function boards(): void
    {
        foreach ($this->build->fittedThat(Ability::HasChannels) as $ref => $fitted) {
            $this->rung(
                'boards alone',
                "board-{$ref}",
                self::called($fitted).' alone',
                'Only its supply is plugged in: no drivers, motors, heaters, fans.',
                [$fitted->need->role, 'its supply'],
                $this->power(),
                [
                    $this->look('lamp', $fitted) => 'Its lamp lights, it answers, and no chip is warm after a minute.',
                ],
                $this->expected((string) $ref, Measured::Voltage),
                ['stored_charge'],
            );
        }
    }

    private function settings(): void
    {
        $gates = [];
        foreach (SettingsAudit::of($this->survey)->lines() as $line) {
            $state = $line->state();
            if ($line->grave && ($state === SettingLine::OPEN || $state === SettingLine::DIFFERS)) {
                $gates[] = mb_substr(
                    $line->label.
                        ($state === SettingLine::OPEN
                            ? ' is not read back'
                            : " reads {$line->set?->value}, not {$line->wants}"),
                    0,
                    500,
                );
            }
        }
        foreach ($this->build->fittedThat(Ability::HasChannels) as $_) {
            $this->rung(
                'settings',
                'settings',
                'Settings read back',
                'What the machine believes about itself is read from it, not from a file.',
                ['the board'],
                [...$this->power(), ...$gates],
                ['saved' => 'Image, version and settings are copied away before the first change.'],
            );

            return;
        }
    }

    private function motors(): void
    {
        foreach ($this->build->fittedThat(Ability::Drives) as $ref => $fitted) {
            $this->rung(
                'motors, one at a time',
                "motor-{$ref}",
                self::called($fitted),
                'Alone, its current set low, free of its belt or screw where that can be.',
                [$fitted->need->role, 'its driver'],
                $this->power(),
                [
                    $this->look('low', $fitted) => 'Its current is set low, and a hand is on the stop.',
                    $this->look('turns', $fitted) => 'It turns both ways, smoothly, and the way it is meant to.',
                ],
                [],
                ['pinch'],
            );
        }
    }

    private function stops(): void
    {
        $stops = Stops::of($this->survey);
        $hazards = $stops->hazards();
        if ($hazards === []) {
            return;
        }
        $buttons = $stops->buttons();
        if ($buttons === []) {
            $this->rung(
                'stops',
                'stops',
                'A stop',
                'What can hurt can be stopped by hand.',
                [],
                ['there is no stop: nothing that hurts can be switched off at once'],
            );
        }
        foreach ($buttons as $ref => $fitted) {
            $dead = [];
            $left = [];
            foreach ($stops->state([(string) $ref]) as $need => $state) {
                if ($state === Stops::OFF || $state === Stops::HELD) {
                    $dead[] = $this->build->roleOf((string) $need);
                } else {
                    $left[] = $this->build->roleOf((string) $need);
                }
            }
            $this->rung(
                'stops',
                "stop-{$ref}",
                $fitted->need->role,
                $left === []
                    ? 'Pressed, all that hurts goes dead.'
                    : 'Still live while it is pressed: '.implode(', ', $left).'.',
                ['all but heat and tool'],
                $this->power(),
                [
                    $this->look('pressed', $fitted) => 'Pressed: '.
                        ($dead === []
                            ? 'nothing goes dead by the wiring; see what does'
                            : implode(', ', $dead).' dead').
                        '.',
                    $this->look('released', $fitted) => 'Released: nothing starts by itself.',
                    $this->look('power-back', $fitted) => 'Mains off and on again: nothing starts by itself.',
                ],
                [],
                ['pinch'],
            );
        }
    }

    private function homing(): void
    {
        $looks = $gates = [];
        foreach ($this->build->axes as $axis) {
            foreach ($axis->homing->sensors as $need) {
                $fitted = $this->build->fitted($need);
                if ($fitted !== null) {
                    $looks[
                        $this->look("trip-{$need}", $fitted)
                    ] = "{$fitted->need->role} tripped by hand, motors off: the machine sees it, and sees it let go.";
                }
            }
        }
        foreach ($this->build->axes as $axis) {
            if ($axis->homing->by !== null || $axis->homing->sensors !== []) {
                $looks["home-{$axis->ref}"] = "{$axis->name} homes, slowly, a hand on the switch.";
            }
        }
        if ($looks === []) {
            return;
        }
        $this->rung(
            'homing',
            'homing',
            'Each switch by hand, then homing',
            'First every switch and probe is tripped by hand; only then does a motor look for it.',
            ['motors', 'switches and probes'],
            [...$this->power(), ...$gates],
            $looks,
            [],
            ['pinch'],
        );
    }

    private function heat(): void
    {
        foreach ($this->hazards(Hazard::Heat) as $ref => $fitted) {
            $this->rung(
                'heat, one at a time',
                "heat-{$ref}",
                self::called($fitted),
                'Alone, and somebody stays with it. Nothing is left to itself before the last look here is ticked.',
                [$fitted->need->role],
                $this->power(),
                [
                    $this->look(
                        'own',
                        $fitted,
                    ) => 'Switched on for ten seconds: its own sensor rises, all others stay.',
                    $this->look(
                        'sensor-out',
                        $fitted,
                    ) => 'Its sensor unplugged (power off before a hand goes in): the heat goes off by itself.',
                    $this->look(
                        'heater-out',
                        $fitted,
                    ) => 'Its heater unplugged instead: the machine says so, and stops.',
                    $this->look(
                        'holds',
                        $fitted,
                    ) => 'Warmed to 50 °C and held for five minutes: no smell, plug and lead stay cool.',
                ],
                $this->expected((string) $ref, Measured::HeatUp),
                ['hot', 'fire'],
            );
        }
    }

    private function tools(): void
    {
        foreach ([Hazard::Spindle, Hazard::Torch] as $hazard) {
            foreach ($this->hazards($hazard) as $ref => $fitted) {
                $this->rung(
                    'tool',
                    "tool-{$ref}",
                    self::called($fitted),
                    $hazard === Hazard::Spindle
                        ? 'No cutter in it, the collet tight or off, nobody in line with it.'
                        : 'Shade on, nothing that burns near, fire watch set, extraction running.',
                    [$fitted->need->role],
                    $this->power(),
                    $hazard === Hazard::Spindle
                        ? [
                            $this->look('way', $fitted) => 'At its lowest speed: it turns the right way round.',
                            $this->look('reverse', $fitted) => 'The key for reverse does nothing.',
                            $this->look(
                                'stop',
                                $fitted,
                            ) => 'The stop stops it, and it stays stopped when the stop is let go.',
                            $this->look(
                                'speeds',
                                $fitted,
                            ) => 'Through its speeds: no rattle, no smell, housing below its limit after ten minutes.',
                        ]
                        : [
                            $this->look(
                                'dry',
                                $fitted,
                            ) => 'Without an arc: on and off follow the command, and it is off while it travels.',
                            $this->look('stop', $fitted) => 'The stop puts it out, and it stays out.',
                        ],
                    [],
                    $hazard === Hazard::Spindle ? ['cutter', 'hearing', 'stored_charge'] : ['arc', 'fumes', 'fire'],
                );
            }
        }
    }

    /**
     * @return array<string, Fitted> loads that hurt in one way and are fed
     */
    private function hazards(Hazard $hazard): array
    {
        return array_filter(
            Stops::of($this->survey)->hazards(),
            static fn (Fitted $f): bool => $f->part->family->hazard() === $hazard,
        );
    }

    private function together(): void
    {
        $expected = [];
        foreach ($this->expectations as $one) {
            $expected = $one->what->value === 'wall_power' ? [...$expected, $one] : $expected;
        }
        $fans = [];
        foreach ($this->build->fittedThat(Ability::Blows) as $fitted) {
            $fans[
                $this->look("fan-{$fitted->need->ref}", $fitted)
            ] = "{$fitted->need->role} turns, and blows the way it is meant to.";
        }
        $this->rung(
            'all together',
            'together',
            'Everything at once, watched',
            'An hour of what it is made for, with nobody gone.',
            ['everything'],
            $this->power(),
            [
                ...$fans,
                'cool' => 'Plugs, terminals and supplies touched after half an hour, switched off: none is hot.',
            ],
            $expected,
            ['fire'],
        );
    }

    private function last(): void
    {
        $looks = ['aligned' => 'It is straight and square: what was measured stands under Straight.'];
        if ($this->hazards(Hazard::Heat) !== []) {
            $looks['heat-loops'] = 'Each heater loop is tuned, and holds its temperature.';
        }
        $this->rung(
            'tuning',
            'tuning',
            'Straight, and tuned',
            'Before it is made to do its best, it is made to do the same twice.',
            ['everything'],
            $this->power(),
            $looks,
        );
        $piece = $this->lastPiece();
        $gates = [];
        foreach ($piece->features ?? [] as $feature) {
            $what = "{$feature->name} of {$piece?->piece}";
            if ($feature->measured === null) {
                $gates[] = "{$what} is not measured";
            } elseif ($feature->isOut()) {
                $gates[] = "{$what} is {$feature->measured}, not {$feature->nominal} ± {$feature->tolerance}";
            }
        }
        if ($piece === null || $piece->features === []) {
            $gates[] = 'no test piece is measured yet';
        }
        $this->rung(
            'test piece',
            'piece',
            'A test piece, made and measured',
            'One piece, sliced or programmed for this machine; a file that came with it proves nothing.',
            ['everything'],
            [...$this->power(), ...$gates],
        );
        $this->rung(
            'sign-off',
            'sign-off',
            'Signed off',
            'Whoever built it says that it is done, and what is left open.',
            [],
            $this->power(),
            ['signed' => 'What is open is written down, with its reason, and I put my name to it.'],
        );
    }

    private function lastPiece(): ?TestPiece
    {
        $last = null;
        foreach ($this->build->tests as $test) {
            $last = $last === null || $test->at >= $last->at ? $test : $last;
        }

        return $last;
    }

    /**
     * Attempts that did not start while nobody had looked at the stops: that is no fault yet.
     *
     * @return list<PowerAttempt>
     */
    public function unexplained(): array
    {
        $last = null;
        foreach ($this->build->attempts as $attempt) {
            $last = $last === null || $attempt->at >= $last->at ? $attempt : $last;
        }

        return $last?->isUnexplained() === true ? [$last] : [];
    }

    /** The rung to stand on now: the first that is not passed. */
    public function next(): ?Rung
    {
        foreach ($this->rungs as $rung) {
            if (! $rung->isPassed()) {
                return $rung;
            }
        }

        return null;
    }

    /**
     * @return array{build: string, next: string|null, passed: int, dangers: list<string>,
     *     unexplained: list<array{ref: string, stops: string}>, rungs: list<array<string, mixed>>}
     */
    public function toArray(): array
    {
        return [
            'build' => $this->build->plan->name,
            'next' => $this->next()?->key,
            'passed' => count(array_filter($this->rungs, static fn (Rung $r): bool => $r->isPassed())),
            'dangers' => $this->dangers,
            'unexplained' => array_map(
                static fn (PowerAttempt $a): array => ['ref' => $a->ref, 'stops' => $a->stops],
                $this->unexplained(),
            ),
            'rungs' => array_map(static fn (Rung $r): array => $r->toArray(), $this->rungs),
        ];
    }
}
