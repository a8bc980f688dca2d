<?php

declare(strict_types=1);

namespace Magpie\Core\Service;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Hazard;
use Magpie\Core\Machine\Process;
use Magpie\Core\Machine\Purpose;
use Magpie\Core\Machine\Running\Job;
use Magpie\Core\Machine\Running\Measured;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Machine\Running\TestPiece;
use Magpie\Core\Machine\Running\UpkeepRound;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Work\StepState;

/**
 * A machine in use: hours by axis, heater and tool from its jobs, what is due by them, what earlier rounds found, how readings drift, and
 * what may be done next. Intervals are common practice, no source: joints and power terminals within tens of hours (RU-16).
 *
 * @phpstan-type Task array{key: string, title: string, why: string, every: float, since: float, left: float, last: int|null,
 *     found: string|null, trouble: bool, due: bool}
 */
final readonly class Upkeep
{
    /** Key → what is done, why, the machine hours between, the hours before it is done first. */
    private const TASKS = [
        'joints' => [
            'Tighten moving joints and power terminals',
            'What moves and what gets warm works loose, soonest when new.',
            100.0,
            10.0,
        ],
        'belts' => ['Belts: tension and teeth', 'A slack belt lags, and skips.', 150.0, 50.0],
        'grub-screws' => ['Grub screws of pulleys and couplings', 'One that is loose turns on its shaft.', 150.0, 50.0],
        'guides' => ['Guides and screws: clean and oil', 'Dust in the wipers grinds.', 100.0, 50.0],
        'filters' => ['Filters and fans', 'A clogged filter cooks what is behind it.', 100.0, 50.0],
        'plugs' => [
            'Plugs of bed and tool on moving leads',
            'A plug that flexes chars after a hundred hours.',
            100.0,
            50.0,
        ],
        'slats' => ['Slats and spatter', 'A slat cut through lets the sheet tip.', 20.0, 20.0],
        'collet' => [
            'Collet and cone: clean, look at the run-out',
            'A chip in the cone is run-out in the cut.',
            40.0,
            20.0,
        ],
    ];

    /** Days after the first use, or the last review, until all of it is looked at again: common practice, no source. */
    private const REVIEW = 180;

    /**
     * The share by which the air alone moves a reading between 15 and 30 °C: copper by 0.00393 for each kelvin (IEC 60028, from memory),
     * a thermistor to twice or half of it (the beta equation at 3950 K gives 1.97).
     */
    private const BY_WARMTH = [
        Measured::PhaseResistance->value => 0.06,
        Measured::ColdResistance->value => 0.06,
        Measured::SensorResistance->value => 1.0,
    ];

    /** What it is in the machine for, in the order in which it is worth doing. */
    private const WORTH = [
        Purpose::Safety->value => 'for safety',
        Purpose::Core->value => 'it does not run as meant without',
        Purpose::Backup->value => 'a spare',
        Purpose::Quality->value => 'for what it makes',
        Purpose::Convenience->value => 'for comfort or looks',
    ];

    /** Tasks by what has to be looked after. */
    private const WEARS = [
        'belts' => [Ability::RunsOnTeeth],
        'grub-screws' => [Ability::CarriesBelt, Ability::JoinsShafts],
        'guides' => [Ability::Rolls, Ability::HasLead],
        'filters' => [Ability::Blows],
    ];

    /**
     * @param  int|null  $now  when it is asked, in seconds since 1970; what is due by months waits for it
     */
    public function __construct(private Build $build, private ?int $now = null)
    {
    }

    /**
     * @return list<string> keys of the tasks this machine has
     */
    private function tasks(): array
    {
        $tasks = ['joints'];
        foreach ($this->build->allFitted() as $fitted) {
            foreach (self::WEARS as $task => $abilities) {
                $tasks[] = $fitted->part->canAny(...$abilities) ? $task : null;
            }
            $tasks[] = match ($fitted->part->family->hazard()) {
                Hazard::Heat => 'plugs',
                Hazard::Torch => 'slats',
                Hazard::Spindle => 'collet',
                default => null,
            };
        }

        return array_values(array_intersect(array_keys(self::TASKS), array_filter($tasks)));
    }

    /** Hours run after a moment. */
    private function hours(int $after): float
    {
        $hours = 0.0;
        foreach ($this->build->jobs as $job) {
            $hours += $job->at > $after ? $job->time->in('h') : 0.0;
        }

        return $hours;
    }

    /**
     * @return list<Task> what is due first
     */
    public function due(): array
    {
        $rows = [];
        foreach ($this->tasks() as $key) {
            [$title, $why, $every, $first] = self::TASKS[$key];
            $last = $this->lastRound($key);
            $since = $this->hours($last->at ?? -1);
            $limit = $last === null ? $first : ($last->trouble ? $every / 2 : $every);
            $rows[] = [
                'key' => $key,
                'title' => $title,
                'why' => $why,
                'every' => $limit,
                'since' => round($since, 1),
                'left' => round($limit - $since, 1),
                'last' => $last?->at,
                'found' => $last?->found,
                'trouble' => $last->trouble ?? false,
                'due' => $since >= $limit,
            ];
        }
        usort($rows, static fn (array $a, array $b): int => $a['left'] <=> $b['left']);

        return $rows;
    }

    private function lastRound(string $task): ?UpkeepRound
    {
        $last = null;
        foreach ($this->build->rounds as $round) {
            $last = $round->task === $task && ($last === null || $round->at >= $last->at) ? $round : $last;
        }

        return $last;
    }

    /**
     * @return list<array{what: string, hours: float}> by axis, heat and tool
     */
    public function run(): array
    {
        $rows = [];
        $rows[] = ['what' => 'All of it', 'hours' => round($this->hours(-1), 1)];
        foreach ($this->build->axes as $ref => $axis) {
            $hours = 0.0;
            foreach ($this->build->jobs as $job) {
                $hours += $job->axes === [] || in_array((string) $ref, $job->axes, true) ? $job->time->in('h') : 0.0;
            }
            $rows[] = ['what' => $axis->name, 'hours' => round($hours, 1)];
        }
        foreach (['heat' => 'Heaters', 'spindle' => 'Spindle or torch'] as $key => $what) {
            $hours = 0.0;
            foreach ($this->build->jobs as $job) {
                $time = $key === 'heat' ? $job->heat : $job->spindle;
                $hours += $time?->in('h') ?? 0.0;
            }
            if ($hours > 0) {
                $rows[] = ['what' => $what, 'hours' => round($hours, 1)];
            }
        }

        return $rows;
    }

    /**
     * Readings of one thing that were taken more than once, and how far they have gone since the first. Struck ones do not count.
     *
     * @return list<array{what: string, where: string, unit: string, first: float, last: float, drift: float|null,
     *     points: list<array{float, float}>, says: string|null}>
     */
    public function trends(): array
    {
        $groups = [];
        foreach ($this->build->readings as $reading) {
            if ($reading->struck === null && $reading->at !== null) {
                $groups[$reading->of()][] = $reading;
            }
        }
        $rows = [];
        foreach ($groups as $readings) {
            if (count($readings) < 2) {
                continue;
            }
            usort($readings, static fn (Reading $a, Reading $b): int => $a->at <=> $b->at);
            $unit = $readings[0]->value->unit->symbol;
            $values = array_map(static fn (Reading $r): float => $r->value->in($unit), $readings);
            [$first, $last] = [$values[0], $values[count($values) - 1]];
            $drift = abs($first) < 1e-12 ? null : $last / $first - 1;
            $doubt =
                $readings[0]->doubt()->in($unit) +
                $readings[count($readings) - 1]->doubt()->in($unit) +
                (self::BY_WARMTH[$readings[0]->what->value] ?? 0.0) * min(abs($first), abs($last));
            $rows[] = [
                'what' => $readings[0]->what->label(),
                'where' => $this->where($readings[0]),
                'unit' => $unit,
                'first' => $first,
                'last' => $last,
                'drift' => $drift === null ? null : round($drift, 4),
                'points' => array_map(
                    static fn (Reading $r, float $v): array => [(float) $r->at, $v],
                    $readings,
                    $values,
                ),
                'says' => abs($last - $first) <= $doubt ? null : self::meaning($readings[0]->what, $last > $first),
            ];
        }

        return $rows;
    }

    private function where(Reading $reading): string
    {
        $axis = $reading->axis === null ? null : $this->build->axes[$reading->axis] ?? null;

        return $reading->need === null ? $axis->name ?? 'the machine' : $this->build->roleOf($reading->need);
    }

    private static function meaning(Measured $what, bool $rises): ?string
    {
        return match ($what) {
            Measured::Backlash => $rises ? 'It wears, or a nut or coupling has loosened.' : null,
            Measured::Resonance => $rises ? null : 'It has become softer: a screw, a foot or a belt has loosened.',
            Measured::BeltNote => $rises ? null : 'The belt has stretched, or its clamp slips.',
            Measured::Bond => $rises
                ? 'An earth lug corrodes or loosens: tighten it before the machine is used again.'
                : null,
            Measured::TurningTorque => $rises
                ? 'It runs heavier: dirt, dry, or too much preload.'
                : 'It runs lighter: preload is gone.',
            Measured::RunOut => $rises ? 'A chip in the cone, or a worn collet or bearing.' : null,
            Measured::ColdResistance, Measured::PhaseResistance => $rises
                ? 'A contact on the way ages.'
                : 'Turns touch each other: look for it before it burns.',
            default => 'It has moved by more than the instruments may be off.',
        };
    }

    /**
     * Reference pieces, like with like only, each with the verdict of what was measured on it.
     *
     * @return list<array{piece: string, recipe: string|null, material: string|null, made: list<array{ref: string, at: int,
     *     changed: string|null, verdict: string, features: list<array{name: string, nominal: string, tolerance: string,
     *     measured: string|null, off: float|null, verdict: string}>}>}>
     */
    public function pieces(): array
    {
        $groups = [];
        foreach ($this->build->tests as $test) {
            $groups[$test->like()][] = $test;
        }
        $rows = [];
        foreach ($groups as $tests) {
            usort($tests, static fn (TestPiece $a, TestPiece $b): int => $a->at <=> $b->at);
            $rows[] = [
                'piece' => $tests[0]->piece,
                'recipe' => $tests[0]->recipe,
                'material' => $tests[0]->material,
                'made' => array_map(self::made(...), $tests),
            ];
        }

        return $rows;
    }

    /**
     * @return array{ref: string, at: int, changed: string|null, verdict: string, features: list<array{name: string,
     *     nominal: string, tolerance: string, measured: string|null, off: float|null, verdict: string}>}
     */
    private static function made(TestPiece $test): array
    {
        $features = [];
        $verdict = $test->features === [] ? 'unproven' : 'holds';
        foreach ($test->features as $feature) {
            $off = $feature->off()?->in('mm');
            $limit = $feature->tolerance->in('mm');
            $own = match (true) {
                $off === null => 'unproven',
                $feature->isOut() => 'fails',
                abs($off) > 0.8 * $limit => 'tight',
                default => 'holds',
            };
            $rank = ['fails' => 0, 'unproven' => 1, 'tight' => 2, 'holds' => 3];
            $verdict = $rank[$own] < $rank[$verdict] ? $own : $verdict;
            $features[] = [
                'name' => $feature->name,
                'nominal' => $feature->nominal->text(),
                'tolerance' => $feature->tolerance->text(),
                'measured' => $feature->measured?->text(),
                'off' => $off === null ? null : round($off, 4),
                'verdict' => $own,
            ];
        }

        return [
            'ref' => $test->ref,
            'at' => $test->at,
            'changed' => $test->changed,
            'verdict' => $verdict,
            'features' => $features,
        ];
    }

    /**
     * The whole of it, looked at again after some months: null until it is due.
     *
     * @return array{string, string}|null
     */
    private function review(): ?array
    {
        $used = array_map(static fn (Job $job): int => $job->at, array_values($this->build->jobs));
        $last = $this->lastRound('review');
        $since = $last->at ?? ($used === [] ? null : min($used));
        if ($this->now === null || $since === null) {
            return null;
        }
        $days = intdiv($this->now - $since, 86_400);

        return $days < self::REVIEW
            ? null
            : [
                'Look at the whole of it again',
                sprintf(
                    '%d days since %s: what was waived, what was assumed, what you would do otherwise',
                    $days,
                    $last === null ? 'it was first used' : 'the last review',
                ),
            ];
    }

    /**
     * What is not in the machine yet, safety before looks: what is begun stays open, and what the machine can make itself is said.
     *
     * @return list<array{need: string, what: string, why: string, begun: bool, itself: bool}>
     */
    public function upgrades(): array
    {
        $prints = $this->build->brief->process === Process::Printing;
        $order = array_keys(self::WORTH);
        $rows = [];
        foreach ($this->build->needs as $ref => $need) {
            // Where nobody says how far a place is, it is as far as the machine: that is no upgrade.
            if ($need->stage === null || ! $need->stage->isBefore($this->build->stageOf('')) || $need->quantity < 1) {
                continue;
            }
            $fitted = $this->build->fitted((string) $ref);
            $purpose = ($need->purpose ?? Purpose::Core)->value;
            $begun = $need->stage !== Stage::Planned;
            foreach ($this->build->steps as $step) {
                $begun = $begun || (isset($step->uses[$ref]) && $step->state !== StepState::Open);
            }
            $rows[] = [
                [(int) array_search($purpose, $order, true), $begun ? 0 : 1],
                [
                    'need' => (string) $ref,
                    'what' => $need->role,
                    'why' => self::WORTH[$purpose],
                    'begun' => $begun,
                    'itself' => $prints && $fitted?->part->can(Ability::Printed) === true,
                ],
            ];
        }
        usort($rows, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return array_column($rows, 1);
    }

    /**
     * What may be done next, safety before looks, a tightening and alignment round before money.
     *
     * @return list<array{what: string, why: string, where: string}>
     */
    public function next(): array
    {
        $rows = [];
        foreach ($this->build->faults as $fault) {
            if ($fault->isOpen()) {
                $rows[] = [$fault->forbidsPower() ? 0 : 2, $fault->what, 'an open fault', 'build/faults'];
            }
        }
        foreach ($this->due() as $task) {
            if ($task['due']) {
                $rows[] = [
                    1,
                    $task['title'],
                    sprintf('%.0f h since it was done, %.0f are usual', $task['since'], $task['every']),
                    'run/upkeep',
                ];
            }
        }
        foreach ($this->trends() as $trend) {
            if ($trend['says'] !== null) {
                $rows[] = [1, ucfirst("{$trend['what']} of {$trend['where']}"), $trend['says'], 'run/readings'];
            }
        }
        foreach ($this->siblings() as [$what, $why]) {
            $rows[] = [1, $what, $why, 'build/faults'];
        }
        $review = $this->review();
        if ($review !== null) {
            $rows[] = [3, ...$review, 'run/upkeep'];
        }
        usort($rows, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return array_map(static fn (array $r): array => ['what' => $r[1], 'why' => $r[2], 'where' => $r[3]], $rows);
    }

    /**
     * Of a lot of which one failed, the others (RU-17).
     *
     * @return list<array{string, string}>
     */
    private function siblings(): array
    {
        $rows = [];
        foreach ($this->build->faults as $fault) {
            $own = $fault->need === null ? null : $this->build->fitted($fault->need);
            if ($own === null || $fault->lot === null) {
                continue;
            }
            foreach ($this->build->allFitted() as $ref => $other) {
                if ((string) $ref !== $fault->need && $other->part->ref === $own->part->ref) {
                    $rows["{$ref}"] = [
                        "Renew {$other->need->role} too",
                        "{$own->need->role} of lot {$fault->lot} failed: {$fault->what}",
                    ];
                }
            }
        }

        return array_values($rows);
    }

    /**
     * @return list<array{ref: string, name: string, at: int, hours: float, material: string|null}> the last first
     */
    public function jobs(): array
    {
        $jobs = [...$this->build->jobs];
        usort($jobs, static fn (Job $a, Job $b): int => $b->at <=> $a->at);

        return array_map(
            static fn (Job $j): array => [
                'ref' => $j->ref,
                'name' => $j->name,
                'at' => $j->at,
                'hours' => round($j->time->in('h'), 2),
                'material' => $j->material,
            ],
            $jobs,
        );
    }

    /**
     * @return array{hours: list<array{what: string, hours: float}>, due: list<Task>, trends: list<array<string, mixed>>,
     *     upgrades: list<array{need: string, what: string, why: string, begun: bool, itself: bool}>,
     *     pieces: list<array<string, mixed>>, next: list<array{what: string, why: string, where: string}>,
     *     jobs: list<array{ref: string, name: string, at: int, hours: float, material: string|null}>}
     */
    public function toArray(): array
    {
        return [
            'hours' => $this->run(),
            'due' => $this->due(),
            'trends' => $this->trends(),
            'pieces' => $this->pieces(),
            'next' => $this->next(),
            'upgrades' => $this->upgrades(),
            'jobs' => $this->jobs(),
        ];
    }
}
