<?php

declare(strict_types=1);

namespace Magpie\Core\Programs;

use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Inspection\InputMissing;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Motion\UsableTravel;

/** A program held against a machine: its travel, speeds, turns, heat, and what it takes in time and energy (C12 of the handbook). */
final readonly class JobCheck
{
    /** The weakest evidence a program may be sent on. */
    public const ASKS = Evidence::Manual;

    /** Where what a program heats is heated. */
    private const PLACES = ['nozzle' => 'hot end', 'bed' => 'bed', 'chamber' => 'chamber'];

    public function __construct(private Survey $survey, private ProgramReader $program, private Caps $caps)
    {
    }

    /**
     * @param  array<string, float>  $origin  where the program's zero lies on the machine, mm, by X, Y, Z; unknown where not given
     * @return array{verdict: string, lines: int, moves: int, seconds: float, tool_seconds: float, cut: float, rapid: float,
     *     laid: float, pierces: int, energy: float|null, axes: list<array{axis: string, low: float, high: float, reach: float,
     *     travel: float|null, left: float|null, feed: float|null, cap: float|null}>, turns: array{float, float}|null,
     *     heat: array<string, float>, stock: list<array{axis: string, size: float|null, cut: float, left: float|null}>,
     *     troubles: list<array{verdict: string, says: string, line: int|null, times: int}>}
     */
    public function toArray(array $origin = [], ?Stock $stock = null): array
    {
        [$around, $beyond] = $stock?->against($this->program->cutting) ?? [[], []];
        $troubles = [...$this->program->troubles(), ...$this->turns(), ...$this->heat(), ...$beyond];
        $axes = [];
        foreach ($this->program->bounds as $key => [$low, $high]) {
            [$row, $more] = $this->axis((string) $key, $low, $high, $origin[$key] ?? null);
            $axes[] = $row;
            array_push($troubles, ...$more);
        }
        $rank = static fn (Trouble $t): int => $t->verdict->rank();
        usort($troubles, static fn (Trouble $a, Trouble $b): int => [$rank($a), $a->line] <=> [$rank($b), $b->line]);

        return [
            'verdict' => $troubles === [] ? 'holds' : $troubles[0]->verdict->value,
            'lines' => $this->program->lines,
            'moves' => $this->program->moves,
            'seconds' => round($this->program->times->seconds, 1),
            'tool_seconds' => round($this->program->times->toolSeconds, 1),
            'cut' => round($this->program->cut, 1),
            'rapid' => round($this->program->rapid, 1),
            'laid' => round($this->program->laid, 1),
            'pierces' => $this->program->pierces,
            'energy' => $this->energy(),
            'axes' => $axes,
            'turns' => $this->program->turns,
            'heat' => $this->program->heat,
            'stock' => $around,
            'troubles' => array_map(
                static fn (Trouble $t): array => [
                    'verdict' => $t->verdict->value,
                    'says' => $t->says,
                    'line' => $t->line,
                    'times' => $t->times,
                ],
                $troubles,
            ),
        ];
    }

    /**
     * @return array{array{axis: string, low: float, high: float, reach: float, travel: float|null, left: float|null,
     *     feed: float|null, cap: float|null}, list<Trouble>}
     */
    private function axis(string $key, float $low, float $high, ?float $origin): array
    {
        [$travel, $guessed] = $this->travel($key);
        $feed = $this->program->feeds[$key] ?? null;
        $cap = $this->caps->speed[$key] ?? null;
        $troubles = $this->ends($key, $low, $high, $origin, $travel, $guessed);
        if ($feed !== null && $cap !== null && $feed > $cap * 1.0001) {
            $troubles[] = new Trouble(
                Verdict::Tight,
                sprintf(
                    '%s is fed at %.0f mm/min, and reaches %.0f: the cut is slower than it was meant.',
                    $key,
                    $feed,
                    $cap,
                ),
            );
        }

        return [
            [
                'axis' => $key,
                'low' => round($low, 3),
                'high' => round($high, 3),
                'reach' => round($high - $low, 3),
                'travel' => $travel === null ? null : round($travel, 2),
                'left' => $travel === null ? null : round($travel - ($high - $low), 2),
                'feed' => $feed === null ? null : round($feed, 1),
                'cap' => $cap === null ? null : round($cap, 1),
            ],
            $troubles,
        ];
    }

    /**
     * @param  list<string>  $guessed  what the travel rests on that nobody has measured or read from a sheet
     * @return list<Trouble>
     */
    private function ends(string $key, float $low, float $high, ?float $origin, ?float $travel, array $guessed): array
    {
        $reach = $high - $low;
        if ($travel === null) {
            $says = "How far {$key} can travel is not known: it goes {$this->mm($reach)}.";
        } elseif ($reach > $travel + 1e-6) {
            $over = $this->mm($reach - $travel);

            return [
                new Trouble(
                    Verdict::Fails,
                    "{$key} goes {$this->mm($reach)}, and can travel {$this->mm($travel)}: {$over} too far.",
                ),
            ];
        } elseif ($origin !== null && ($origin + $low < -1e-6 || $origin + $high > $travel + 1e-6)) {
            $goes = "from {$this->mm($origin + $low)} to {$this->mm($origin + $high)}";

            return [
                new Trouble(
                    Verdict::Fails,
                    "With its zero at {$this->mm($origin)}, {$key} goes {$goes}, and can from 0 to {$this->mm($travel)}.",
                ),
            ];
        } elseif ($guessed !== []) {
            $says = "That {$key} can travel {$this->mm($travel)} rests on ".implode(', ', $guessed).'.';
        }

        return isset($says) ? [new Trouble(Verdict::Unproven, $says)] : [];
    }

    private function mm(float $value): string
    {
        return rtrim(rtrim(number_format($value, 2, '.', ''), '0'), '.').' mm';
    }

    /**
     * @return array{float|null, list<string>} mm, the least of all axes along it; and what of that rests on too little
     */
    private function travel(string $key): array
    {
        $found = null;
        $guessed = [];
        foreach ($this->survey->build->axes as $axis) {
            if (strtoupper($axis->along->value) !== $key) {
                continue;
            }
            $inquiry = Inquiry::forFigures($this->survey, Subject::ofAxis($axis));
            try {
                $usable = UsableTravel::of($inquiry, $axis)->in('mm');
            } catch (InputMissing) {
                $usable = null;
            }
            foreach ($inquiry->inputs() as $input) {
                if ($input->evidence->isWeakerThan(self::ASKS)) {
                    $guessed[] = lcfirst($input->label)." ({$input->evidence->label()})";
                }
            }
            foreach ([$usable, $axis->homing->configured?->in('mm')] as $one) {
                $found = $one === null ? $found : min($found ?? $one, $one);
            }
        }

        return [$found, array_values(array_unique($guessed))];
    }

    /**
     * @return list<Trouble>
     */
    private function turns(): array
    {
        $turns = $this->program->turns;
        if ($turns === null) {
            return [];
        }
        $troubles = [];
        if ($this->caps->fastest === null) {
            $troubles[] = new Trouble(Verdict::Unproven, 'How fast the spindle may turn is not known.');
        } elseif ($turns[1] > $this->caps->fastest) {
            $troubles[] = new Trouble(
                Verdict::Fails,
                sprintf(
                    'It asks for %.0f rpm; %s turns %.0f at the most.',
                    $turns[1],
                    $this->caps->tool,
                    $this->caps->fastest,
                ),
            );
        }
        if ($troubles === [] && $this->caps->rests?->isWeakerThan(self::ASKS) === true) {
            $troubles[] = new Trouble(Verdict::Unproven, "How fast {$this->caps->tool} may turn rests on {$this->caps->rests->label()}.");
        }
        if ($this->caps->slowest !== null && $turns[0] < $this->caps->slowest && $turns[0] > 0) {
            $troubles[] = new Trouble(
                Verdict::Fails,
                sprintf(
                    'It asks for %.0f rpm; below %.0f %s stalls or overheats.',
                    $turns[0],
                    $this->caps->slowest,
                    $this->caps->tool,
                ),
            );
        }

        return $troubles;
    }

    /**
     * @return list<Trouble>
     */
    private function heat(): array
    {
        $troubles = [];
        foreach ($this->program->heat as $what => $set) {
            $heaters = array_filter(
                [...$this->survey->build->allFitted()],
                static fn (Fitted $f): bool => $f->part->spec('place')?->choice() === self::PLACES[$what],
            );
            foreach ($heaters as $heater) {
                $troubles[] = self::tooHot($heater, $what, $set);
            }
            if ($heaters === [] && $set > 0) {
                $troubles[] = new Trouble(
                    Verdict::Fails,
                    "It heats the {$what}, and this machine has no heater there.",
                );
            }
        }

        return array_values(array_filter($troubles));
    }

    private static function tooHot(Fitted $heater, string $what, float $set): ?Trouble
    {
        $stands = $heater->part->spec('material_limit')?->mostStood()?->in('°C');
        $target = $heater->part->spec('target')?->nominal()?->in('°C');
        $role = $heater->need->role;

        return match (true) {
            $stands !== null && $set > $stands => new Trouble(
                Verdict::Danger,
                sprintf('It heats the %s to %.0f °C; %s stands %.0f °C.', $what, $set, $role, $stands),
            ),
            $target !== null && $set > $target => new Trouble(
                Verdict::Tight,
                sprintf(
                    'It heats the %s to %.0f °C, hotter than the %.0f °C this machine was proven for.',
                    $what,
                    $set,
                    $target,
                ),
            ),
            $stands === null && $target === null => new Trouble(
                Verdict::Unproven,
                "What {$role} stands is not known; it is set to {$set} °C.",
            ),
            default => null,
        };
    }

    /** At most so many Wh: all that can run, for the whole of its time. */
    private function energy(): ?float
    {
        $watts = null;
        foreach ((new PowerLedger($this->survey))->toArray() as $scenario) {
            $average = $scenario['energy']['watts'];
            $watts = $average === null ? $watts : max($watts ?? 0.0, $average);
        }

        return $watts === null ? null : round(($watts * $this->program->times->seconds) / 3600, 1);
    }
}
