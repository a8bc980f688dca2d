<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Work\Fault;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Printing\Recipe;
use Magpie\Core\Work\Reading;

/**
 * A fault looked into: what to suspect first, what else may have it, and where an earlier look would have caught it.
 * What was substituted, guessed, waved through, reworked, read near its limit or done late at night comes first; common practice,
 * no source.
 *
 * @phpstan-type Suspect array{what: string, why: string, section: string, ref: string, near: bool}
 */
final readonly class FaultCase
{
    /** Hours of the day between which nobody crimps well. */
    private const LATE = 22;

    private const EARLY = 5;

    /** @var array<string, true> needs the fault is about, and those joined to them */
    private array $near;

    /** @var list<Step> in the order they are done */
    private array $order;

    private Fault $fault;

    /**
     * @param  int  $offset  minutes the builder's clock is ahead of universal time
     */
    public function __construct(private Build $build, string $fault, private int $offset = 0)
    {
        $this->fault = $build->faults[$fault];
        $this->order = Sequence::order($build->steps);
        $this->near = $this->near();
    }

    /**
     * @return array{suspects: list<Suspect>, siblings: list<array{what: string, why: string, section: string, ref: string}>,
     *     earlier: array{step: string, title: string, hours: float, steps: int, has_check: bool}|null}
     */
    public function toArray(): array
    {
        return ['suspects' => $this->suspects(), 'siblings' => $this->siblings(), 'earlier' => $this->earlier()];
    }

    /**
     * @return list<Suspect> the nearest first
     */
    private function suspects(): array
    {
        $suspects = [];
        foreach ($this->order as $step) {
            $isAt = $this->isAt($step);
            if (! $isAt && ! $this->touches($step)) {
                continue;
            }
            foreach ($this->against($step) as $why) {
                $suspects[] = [
                    'what' => $step->title,
                    'why' => $why,
                    'section' => 'steps',
                    'ref' => $step->ref,
                    'near' => $isAt,
                ];
            }
        }
        foreach ($this->build->needs as $need) {
            if (isset($this->near[$need->ref])) {
                foreach ($this->againstPart($need->ref) as $why) {
                    $suspects[] = [
                        'what' => $need->role,
                        'why' => $why,
                        'section' => 'needs',
                        'ref' => $need->ref,
                        'near' => $need->ref === $this->fault->need,
                    ];
                }
            }
        }
        usort($suspects, static fn (array $a, array $b): int => $b['near'] <=> $a['near']);

        return $suspects;
    }

    /**
     * @return list<string> what speaks against a step
     */
    private function against(Step $step): array
    {
        $why = [];
        foreach ($step->guesses as $guess) {
            $why[] =
                $guess->settled === null
                    ? "guessed: {$guess->what}"
                    : "guessed: {$guess->what}; it was {$guess->settled}";
        }
        if ($step->waived !== null) {
            $why[] = "done all the same: {$step->waived}";
        }
        foreach ($this->build->faults as $other) {
            if ($other->ref !== $this->fault->ref && in_array($step->ref, $other->rework, true)) {
                $why[] = "reworked after: {$other->what}";
            }
        }
        if ($step->check !== null && Reading::verdict($step->check) === Verdict::Tight) {
            $why[] = "{$step->check->what} was read near its limit: {$step->check->measured}";
        }
        $late = $this->late($step);
        if ($late !== null) {
            $why[] = "worked on at {$late}";
        }
        if ($step->state === StepState::Skipped) {
            $why[] = 'left out';
        }

        return $why;
    }

    private function late(Step $step): ?string
    {
        foreach ($step->timings as $timing) {
            if ($timing->stop !== null) {
                $minute = intdiv($timing->stop, 60) + $this->offset;
                $hour = intdiv((($minute % 1440) + 1440) % 1440, 60);
                if ($hour >= self::LATE || $hour < self::EARLY) {
                    return sprintf('%02d:%02d', $hour, (($minute % 60) + 60) % 60);
                }
            }
        }

        return null;
    }

    /**
     * @return list<string> what speaks against a part
     */
    private function againstPart(string $need): array
    {
        $why = [];
        foreach ($this->build->bags as $bag) {
            foreach ($bag->holds as $line) {
                if ($line->insteadOf === $need) {
                    $why[] = "{$this->build->roleOf($line->need)} went in for it, from “{$bag->label}”";
                }
            }
        }
        $part = $this->build->fitted($need)?->part;
        $recipe = $part === null ? null : Recipe::of($part)->byRecipe;
        foreach ($this->build->prints as $run) {
            if (
                $run->part === $part?->ref &&
                $run->mass !== null &&
                $recipe !== null &&
                Recipe::isThin($run->mass->in('g'), $recipe)
            ) {
                $why[] = "a thin batch was printed {$run->date}";
            }
        }
        foreach ($this->build->faults as $other) {
            if ($other->ref !== $this->fault->ref && $other->need === $need) {
                $why[] = "had a fault before: {$other->what}";
            }
        }

        return $why;
    }

    /**
     * What may have the same: other places of the same part, other faults of the same way of working, work done that way.
     *
     * @return list<array{what: string, why: string, section: string, ref: string}>
     */
    private function siblings(): array
    {
        $rows = [];
        $part = $this->build->need($this->fault->need ?? '')?->choice;
        $lot = $this->fault->lot;
        foreach ($part === null ? [] : $this->build->needs as $need) {
            $pieces = $need->quantity - ($need->ref === $this->fault->need ? 1 : 0);
            if ($need->choice === $part && $pieces > 0) {
                $rows[] = [
                    'what' => $pieces === 1 ? $need->role : "{$need->role}, {$pieces} pieces",
                    'why' => $lot === null ? 'the same article' : "the same article; of lot {$lot}?",
                    'section' => 'needs',
                    'ref' => $need->ref,
                ];
            }
        }
        foreach ($lot === null ? [] : $this->build->purchases as $purchase) {
            if ($purchase->lot === $lot) {
                $rows[] = [
                    'what' => "{$this->build->parts[$purchase->part]->name}, {$purchase->pieces} pieces",
                    'why' => "came in lot {$lot}",
                    'section' => 'purchases',
                    'ref' => $purchase->ref,
                ];
            }
        }
        $way = mb_strtolower(trim($this->fault->practice ?? ''));
        foreach ($way === '' ? [] : $this->build->faults as $other) {
            if ($other->ref !== $this->fault->ref && mb_strtolower(trim($other->practice ?? '')) === $way) {
                $rows[] = [
                    'what' => $other->what,
                    'why' => "also {$this->fault->practice}",
                    'section' => 'faults',
                    'ref' => $other->ref,
                ];
            }
        }
        foreach ($way === '' ? [] : $this->order as $step) {
            $said = mb_strtolower(implode("\n", [$step->title, $step->notes ?? '', ...$step->tools]));
            if ($step->state === StepState::Done && $step->ref !== $this->fault->step && str_contains($said, $way)) {
                $rows[] = [
                    'what' => $step->title,
                    'why' => "also {$this->fault->practice}",
                    'section' => 'steps',
                    'ref' => $step->ref,
                ];
            }
        }

        return $rows;
    }

    /**
     * The first step that had the part in hand, and what was worked from there until it was found.
     *
     * @return array{step: string, title: string, hours: float, steps: int, has_check: bool}|null
     */
    private function earlier(): ?array
    {
        $first = null;
        $hours = 0.0;
        $steps = 0;
        foreach ($this->order as $step) {
            if ($first === null) {
                $first = $this->hasInHand($step) ? $step : null;

                continue;
            }
            if ($step->state === StepState::Done) {
                $hours += $step->worked(0)->in('h');
                $steps++;
            }
            if ($step->ref === $this->fault->step) {
                break;
            }
        }

        return $first === null || $first->ref === $this->fault->step
            ? null
            : [
                'step' => $first->ref,
                'title' => $first->title,
                'hours' => round($hours, 1),
                'steps' => $steps,
                'has_check' => $first->check !== null,
            ];
    }

    private function isAt(Step $step): bool
    {
        return $step->ref === $this->fault->step || $this->hasInHand($step);
    }

    /** Whether the part or lead it is on goes in at a step. */
    private function hasInHand(Step $step): bool
    {
        return isset($step->uses[$this->fault->need ?? '']) ||
            ($this->fault->lead !== null && in_array("lead/{$this->fault->lead}", $step->follows(), true));
    }

    /** Whether a step has to do with what the fault is about: a part joined to it, or a lead that ends on it. */
    private function touches(Step $step): bool
    {
        $lead = str_starts_with($step->derived ?? '', 'lead/')
            ? $this->build->lead(substr((string) $step->derived, strlen('lead/')))
            : null;

        return array_intersect_key($step->uses, $this->near) !== [] ||
            ($lead !== null && in_array($this->fault->need, [$lead->from->need, $lead->to->need], true));
    }

    /**
     * @return array<string, true> what the fault is about, and what is joined to that
     */
    private function near(): array
    {
        $lead = $this->build->lead($this->fault->lead ?? '');
        $about = array_filter([$this->fault->need, $lead?->from->need, $lead?->to->need], is_string(...));
        if ($about === [] && $this->fault->step !== null) {
            $about = array_keys($this->build->steps[$this->fault->step]->uses);
        }
        $near = array_fill_keys($about, true);
        foreach ($this->build->mates as $mate) {
            if (array_intersect($about, $mate->between) !== []) {
                $near += array_fill_keys($mate->between, true);
            }
        }

        return $near;
    }
}
