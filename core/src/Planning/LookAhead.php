<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;

/**
 * What a step closes in: covers over what stands behind them, joints over the nuts and inserts that were to lie in by then. All of
 * it has to be in first, since to reach it afterwards that step is undone again; with what that costs.
 *
 * @phpstan-type Within array{section: string, ref: string, what: string, is_in: bool|null, step: string|null, hours: float, share: float,
 *     off: int}
 */
final readonly class LookAhead
{
    private Derivation $derived;

    private float $whole;

    /** @var array<string, Step> what is taken from the model, by its key */
    private array $taken;

    /** @var array<string, Step> need → the first step that fits it, typed by hand or taken */
    private array $using;

    /** @var array<string, string> need → key of the first step that brings it in */
    private array $comesIn;

    /** @var array<string, int> place of each step in the order, by key */
    private array $places;

    public function __construct(private Build $build)
    {
        $this->derived = new Derivation($build);
        $this->whole = array_sum(array_map(static fn (StepDraft $d): float => $d->hours, $this->derived->steps));
        $taken = $using = $comesIn = $places = [];
        foreach ($build->steps as $step) {
            foreach ($step->follows() as $key) {
                $taken[$key] = $step;
            }
            foreach ($step->uses as $need => $_) {
                $using[$need] ??= $step;
            }
        }
        foreach ($this->derived->steps as $i => $draft) {
            $places[$draft->key] = $i;
            foreach ([...array_keys($draft->uses), ...$draft->lays] as $need) {
                $comesIn[$need] ??= $draft->key;
            }
        }
        $this->taken = $taken;
        $this->using = $using;
        $this->comesIn = $comesIn;
        $this->places = $places;
    }

    /**
     * @return array{hours: float, closing: list<array{key: string, title: string, section: string, step: string|null,
     *     state: string|null, within: list<Within>}>}
     */
    public function toArray(): array
    {
        $within = [];
        foreach ($this->build->allFitted() as $ref => $_) {
            $need = (string) $ref;
            $at = $this->comesIn[$need] ?? null;
            if ($at === null) {
                continue;
            }
            $way = new WayBack($this->build, $need, $this->derived);
            foreach ($way->off as $draft) {
                // A lead closes nothing in, and a joint does not close in what it joins.
                $isOver = $draft->leads === [] && $this->places[$draft->key] > $this->places[$at];
                if ($isOver && ! in_array($need, $this->joined($draft), true)) {
                    $within[$draft->key][] = $this->row('needs', $need, $this->build->roleOf($need), $way, $at);
                    foreach ($draft->isCover() ? $this->leadsAt($need, $draft) : [] as $lead) {
                        $within[$draft->key][$lead] = $this->row(
                            'leads',
                            $lead,
                            $this->build->leadInWords($this->build->leads[$lead]),
                            $way,
                            "lead/{$lead}",
                        );
                    }
                }
            }
        }
        $closing = [];
        foreach ($this->derived->steps as $draft) {
            $rows = array_values($within[$draft->key] ?? []);
            if ($rows !== []) {
                usort($rows, static fn (array $a, array $b): int => $b['hours'] <=> $a['hours']);
                $step = $this->taken[$draft->key] ?? null;
                $closing[] = [
                    'key' => $draft->key,
                    'title' => $draft->title,
                    'section' => $draft->section(),
                    'step' => $step?->ref,
                    'state' => $step?->state->value,
                    'within' => $rows,
                ];
            }
        }

        return ['hours' => round($this->whole, 1), 'closing' => $closing];
    }

    /**
     * @return list<string> needs a step joins, which are there before it anyway
     */
    private function joined(StepDraft $draft): array
    {
        $mate = str_starts_with($draft->key, 'join/') ? $this->build->mates[substr($draft->key, 5)] ?? null : null;

        return [...$mate->between ?? [], ...array_keys($draft->uses)];
    }

    /**
     * @return list<string> leads that end on a need and come before a step
     */
    private function leadsAt(string $need, StepDraft $before): array
    {
        $leads = [];
        foreach ($this->build->leads as $ref => $lead) {
            $at = $this->places["lead/{$ref}"] ?? null;
            if (
                ($lead->from->need === $need || $lead->to->need === $need) &&
                $at !== null &&
                $at < $this->places[$before->key]
            ) {
                $leads[] = (string) $ref;
            }
        }

        return $leads;
    }

    /**
     * @param  string  $key  of the step that brings it in
     * @return Within
     */
    private function row(string $section, string $ref, string $what, WayBack $way, string $key): array
    {
        $step = $this->taken[$key] ?? ($section === 'needs' ? $this->using[$ref] ?? null : null);
        $hours = $way->hours();
        $made = $section === 'leads' ? $this->build->leads[$ref]->made : false;

        return [
            'section' => $section,
            'ref' => $ref,
            'what' => $what,
            'is_in' => $made ? true : ($step === null ? null : $step->state === StepState::Done),
            'step' => $step?->ref,
            'hours' => round($hours, 2),
            'share' => $this->whole > 0 ? round($hours / $this->whole, 3) : 0.0,
            'off' => count($way->off),
        ];
    }
}
