<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Mate;
use Magpie\Core\Machine\Work\Step;

/**
 * What comes off to reach a part, what goes on again, and what has to be checked anew after it: the covers over it, the leads
 * on it, the joints that hold it, what sits in it and what is joined to it. For a swap, a fault or an upgrade alike.
 *
 * Taking off takes half of what putting on takes, a lead is undone at one end: common practice, no source.
 *
 * @phpstan-type Off array{key: string, title: string, hours: float, cautions: list<string>, tools: list<string>}
 */
final readonly class WayBack
{
    private const OFF = 0.5;

    /** Hours a lead takes to be undone at one end, and joined again. */
    private const LEAD = 0.05;

    /** @var list<StepDraft> in the order they are undone */
    public array $off;

    /** @var array<string, true> the part, and what sits in it and comes out with it */
    private array $moving;

    private Derivation $derived;

    /**
     * @param  Derivation|null  $derived  the steps of this build, where the ways to many parts are asked
     */
    public function __construct(private Build $build, private string $need, ?Derivation $derived = null)
    {
        $this->derived = $derived ?? new Derivation($build);
        $moving = [$need => true];
        foreach ($build->needs as $other) {
            if ($other->host() === $need) {
                $moving[$other->ref] = true;
            }
        }
        $this->moving = $moving;
        $keys = $this->keys();
        // Last in, first out.
        $this->off = array_values(
            array_filter(array_reverse($this->derived->steps), static fn (StepDraft $d): bool => isset($keys[$d->key])),
        );
    }

    /**
     * @return array<string, true> keys of the steps that are undone
     */
    private function keys(): array
    {
        $keys = [];
        foreach ($this->build->mates as $mate) {
            if (isset($this->moving[$mate->between[0]]) || isset($this->moving[$mate->between[1]])) {
                $keys["join/{$mate->ref}"] = true;
            }
        }
        foreach ($this->build->leads as $lead) {
            if (
                isset($this->moving[$lead->from->need]) ||
                isset($this->moving[$lead->to->need]) ||
                isset($this->moving[$lead->chain ?? ''])
            ) {
                $keys["lead/{$lead->ref}"] = true;
            }
        }
        $laid = array_map(
            static fn (StepDraft $d): string => $d->key,
            array_filter($this->derived->steps, fn (StepDraft $d): bool => $this->laysIn($d)),
        );
        foreach ($this->derived->steps as $step) {
            // What was laid in is reached by undoing what closed it in.
            if ($laid !== [] && array_intersect($step->after, $laid) !== []) {
                $keys[$step->key] = true;
            }
            if ($step->key === "fit/{$this->need}" || ($step->isCover() && $this->covers($step))) {
                $keys[$step->key] = true;
            }
        }

        return $keys;
    }

    private function laysIn(StepDraft $step): bool
    {
        return in_array($this->need, $step->lays, true) ||
            (str_starts_with($step->key, 'inserts/') && isset($step->uses[$this->need]));
    }

    /**
     * Whether a cover is in the way: one that is joined to the box the part stands in, or, where no joint says what it closes,
     * any.
     */
    private function covers(StepDraft $cover): bool
    {
        if (isset($cover->uses[$this->need])) {
            return true;
        }
        $mate = str_starts_with($cover->key, 'join/') ? $this->build->mates[substr($cover->key, 5)] ?? null : null;
        $box = $this->build->zoneOf($this->need)?->box;

        return $mate instanceof Mate && $box !== null
            ? in_array($box, $mate->between, true)
            : $this->build->zoneOf($this->need) !== null;
    }

    /**
     * @return list<string> what to measure or check again, in words
     */
    private function again(): array
    {
        $again = [];
        $undone = array_map(static fn (StepDraft $d): string => $d->key, $this->off);
        foreach ($this->derived->steps as $step) {
            $follows = array_intersect($step->after, $undone) !== [];
            if ($step->check !== null && ($follows || in_array($step->key, $undone, true))) {
                $again[] = "{$step->check['what']}: {$step->check['nominal']} ± {$step->check['tolerance']}";
            }
        }
        foreach ($this->build->steps as $step) {
            if ($step->check !== null && $step->check->measured !== null && $this->concerns($step, $undone)) {
                $again[] = "{$step->check->what}: {$step->check->nominal} ± {$step->check->tolerance}, read {$step->check->measured} before";
            }
        }
        foreach ($this->build->settings as $setting) {
            if (array_intersect(explode('.', $setting->about), array_keys($this->moving)) !== []) {
                $again[] = "{$setting->about}: ".($setting->value ?? 'to be said');
            }
        }

        return array_values(array_unique($again));
    }

    /**
     * @param  list<string>  $undone
     */
    private function concerns(Step $step, array $undone): bool
    {
        return isset($step->uses[$this->need]) || array_intersect($step->follows(), $undone) !== [];
    }

    /** The same work the other way round, in words. */
    private static function undone(StepDraft $step): string
    {
        return match (true) {
            $step->leads !== [] => 'Undo'.substr($step->title, strlen('Run')),
            str_starts_with($step->title, 'Fit ') => 'Take off'.substr($step->title, strlen('Fit')),
            default => 'Undo '.lcfirst($step->title),
        };
    }

    /** Hours to reach it and to put all back. */
    public function hours(): float
    {
        return $this->on() * (1 + self::OFF);
    }

    private function on(): float
    {
        return array_sum(array_map(self::hoursOf(...), $this->off));
    }

    private static function hoursOf(StepDraft $step): float
    {
        return $step->leads === [] ? $step->hours : self::LEAD;
    }

    /**
     * @return array{need: string, role: string, mass: string|null, hours_off: float, hours_on: float, off: list<Off>,
     *     again: list<string>}
     */
    public function toArray(): array
    {
        $on = $this->on();
        $mass = $this->build->fitted($this->need)?->part->spec('mass')?->nominal();

        return [
            'need' => $this->need,
            'role' => $this->build->roleOf($this->need),
            'mass' => $mass === null ? null : (string) $mass,
            'hours_off' => round($this->hours() - $on, 2),
            'hours_on' => round($on, 2),
            'off' => array_map(
                static fn (StepDraft $d): array => [
                    'key' => $d->key,
                    'title' => self::undone($d),
                    'hours' => round(self::hoursOf($d), 2),
                    'cautions' => $d->cautions,
                    'tools' => $d->tools,
                ],
                $this->off,
            ),
            'again' => $this->again(),
        ];
    }
}
