<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use DateTimeImmutable;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Work\Forecast;
use Magpie\Core\Work\Gate;

/**
 * What fits into an evening (W3): steps that can be done, in their order, at the builder's own pace, none of them cut; what to
 * lay out for them, what is in the way of the rest, and how to leave it.
 *
 * @phpstan-type Fits array{ref: string, title: string, minutes: int, assumed: bool}
 */
final readonly class Evening
{
    /** Hours of a step nobody gives a time for. */
    private const STEP = 1.0;

    /** @var list<Step> in the order they are done */
    public array $steps;

    /** @var array<string, float> hours of each, by ref */
    private array $hours;

    /** @var list<array{ref: string, title: string, why: string}> what cannot be begun, and why */
    public array $blocked;

    public function __construct(private Build $build, private float $evening, DateTimeImmutable $now)
    {
        $pace = Forecast::of($build->steps, $build->plan, $now)->pace->in('');
        $here = Gate::here($build);
        $left = $evening;
        $chosen = $hours = $blocked = [];
        foreach (Sequence::order($build->steps) as $step) {
            if ($step->state !== StepState::Open) {
                continue;
            }
            $spent = $step->worked($now->getTimestamp())->in('h');
            $takes = max(0.1, ($step->guide?->in('h') ?? self::STEP) * $pace - $spent);
            // What it measures is measured at it, and what comes first this evening has come.
            $closed = array_filter(
                Gate::closed($build, $step, $here, $now->getTimestamp()),
                static fn (Gate $g): bool => $g->kind !== 'reading' &&
                    ! ($g->kind === 'step' && isset($hours[$g->ref ?? ''])),
            );
            if ($closed !== []) {
                $blocked[] = [
                    'ref' => $step->ref,
                    'title' => $step->title,
                    'why' => implode('; ', array_map(static fn (Gate $g): string => $g->says, $closed)),
                ];
            } elseif ($takes <= $left + 1e-9) {
                $chosen[] = $step;
                $hours[$step->ref] = $takes;
                $left -= $takes;
            }
        }
        $this->steps = $chosen;
        $this->hours = $hours;
        $this->blocked = $blocked;
    }

    /**
     * @return array{hours: float, left: float, steps: list<Fits>, tools: list<string>,
     *     parts: list<array{role: string, pieces: int}>, cautions: list<string>, leave: list<string>, blocked: list<array{ref: string, title: string, why: string}>}
     */
    public function toArray(): array
    {
        $tools = $cautions = $parts = [];
        foreach ($this->steps as $step) {
            $tools = [...$tools, ...$step->tools];
            $cautions = [...$cautions, ...$step->cautions];
            foreach ($step->uses as $need => $pieces) {
                $role = $this->build->roleOf((string) $need);
                $parts[$role] = ($parts[$role] ?? 0) + $pieces;
            }
        }

        return [
            'hours' => $this->evening,
            'left' => round($this->evening - array_sum($this->hours), 2),
            'steps' => array_map(
                fn (Step $s): array => [
                    'ref' => $s->ref,
                    'title' => $s->title,
                    'minutes' => (int) round($this->hours[$s->ref] * 60),
                    'assumed' => $s->guide === null,
                ],
                $this->steps,
            ),
            'tools' => array_values(array_unique($tools)),
            'parts' => array_map(
                static fn (string $role, int $pieces): array => ['role' => $role, 'pieces' => $pieces],
                array_keys($parts),
                $parts,
            ),
            'cautions' => array_values(array_unique($cautions)),
            'leave' => $this->leave(),
            'blocked' => array_slice($this->blocked, 0, 8),
        ];
    }

    /**
     * How to leave it, whatever was reached.
     *
     * @return list<string>
     */
    private function leave(): array
    {
        $leave = ['Unplugged, and a note on the plug that says how far it is.'];
        $uses = [];
        foreach ($this->steps as $step) {
            $uses += $step->uses;
        }
        $half = array_filter(
            $this->build->leads,
            static fn ($lead): bool => ! $lead->made &&
                (isset($uses[$lead->from->need]) || isset($uses[$lead->to->need])),
        );
        if ($half !== []) {
            $leave[] =
                'Ends of leads that are bare or not joined are covered: a branch that is half wired is not powered.';
        }
        if ($this->build->forbidsPower()) {
            $leave[] = 'Not to be powered: a danger is open.';
        }

        return $leave;
    }
}
