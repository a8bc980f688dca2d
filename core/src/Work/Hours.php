<?php

declare(strict_types=1);

namespace Magpie\Core\Work;

use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;

/**
 * Where the hours went: sittings with their pauses, hours by section and by who worked, own pace by section, and a band about
 * what is left.
 *
 * @phpstan-type Sitting array{by: string|null, start: int, stop: int, worked: float, pause: float, steps: int}
 */
final readonly class Hours
{
    /** Longer than this, and it is another sitting. Common practice, no source. */
    private const PAUSE = 5400;

    /** Steps with a guide and hours of their own, from which a spread is taken. */
    private const STEPS = 5;

    /** Of the normal distribution: nine of ten stay below. */
    private const NINE_OF_TEN = 1.2816;

    /**
     * @param  array<string, Step>  $steps
     */
    public function __construct(private array $steps, private int $now)
    {
    }

    /**
     * @return array{sittings: list<Sitting>, sections: list<array{section: string, guide: float, worked: float, left: float, pace: float|null,
     *     steps: int, done: int}>, people: array<string, float>, band: array{low: float, high: float}|null}
     */
    public function toArray(): array
    {
        return [
            'sittings' => $this->sittings(),
            'sections' => $this->sections(),
            'people' => $this->people(),
            'band' => $this->band(),
        ];
    }

    /**
     * When somebody first worked at a build.
     *
     * @param  array<string, Step>  $steps
     * @return int Unix seconds; the latest there are where nobody did
     */
    public static function begun(array $steps): int
    {
        $starts = [];
        foreach ($steps as $step) {
            array_push($starts, ...array_column($step->timings, 'start'));
        }

        return min([PHP_INT_MAX, ...$starts]);
    }

    /**
     * @return list<Sitting> the latest first
     */
    public function sittings(): array
    {
        $spells = [];
        foreach ($this->steps as $step) {
            foreach ($step->timings as $t) {
                $spells[$t->by ?? ''][] = [$t->start, max($t->start, $t->stop ?? $this->now), $step->ref];
            }
        }
        $sittings = [];
        foreach ($spells as $by => $own) {
            sort($own);
            $group = [];
            $until = 0;
            foreach ($own as $spell) {
                if ($group !== [] && $spell[0] - $until > self::PAUSE) {
                    $sittings[] = self::sitting((string) $by, $group);
                    $group = [];
                }
                $group[] = $spell;
                $until = max($until, $spell[1]);
            }
            $sittings[] = self::sitting((string) $by, $group);
        }
        usort($sittings, static fn (array $a, array $b): int => $b['start'] <=> $a['start']);

        return $sittings;
    }

    /**
     * @param  non-empty-list<array{int, int, string}>  $spells  start, stop and step, by their start
     * @return Sitting
     */
    private static function sitting(string $by, array $spells): array
    {
        $stop = $spells[0][0];
        $busy = 0;
        foreach ($spells as $spell) {
            // Two clocks that ran at once are one hour of one person.
            $busy += max(0, $spell[1] - max($spell[0], $stop));
            $stop = max($stop, $spell[1]);
        }

        return [
            'by' => $by === '' ? null : $by,
            'start' => $spells[0][0],
            'stop' => $stop,
            'worked' => round($busy / 3600, 2),
            'pause' => round(($stop - $spells[0][0] - $busy) / 3600, 2),
            'steps' => count(array_unique(array_column($spells, 2))),
        ];
    }

    /**
     * @return list<array{section: string, guide: float, worked: float, left: float, pace: float|null, steps: int, done: int}>
     */
    private function sections(): array
    {
        $rows = [];
        foreach ($this->steps as $step) {
            $row = $rows[$step->section] ?? [
                'guide' => 0.0,
                'worked' => 0.0,
                'left' => 0.0,
                'of' => 0.0,
                'own' => 0.0,
                'steps' => 0,
                'done' => 0,
            ];
            $guide = $step->guide?->in('h') ?? 0.0;
            $worked = $step->worked($this->now)->in('h');
            $row['guide'] += $guide;
            $row['worked'] += $worked;
            $row['left'] += $step->state === StepState::Open ? $guide : 0.0;
            if ($step->state === StepState::Done && $guide > 0 && $worked > 0) {
                $row['of'] += $guide;
                $row['own'] += $worked;
            }
            $row['steps']++;
            $row['done'] += $step->state === StepState::Open ? 0 : 1;
            $rows[$step->section] = $row;
        }

        return array_map(
            static fn (string $section, array $r): array => [
                'section' => $section,
                'guide' => round($r['guide'], 2),
                'worked' => round($r['worked'], 2),
                'left' => round($r['left'], 2),
                'pace' => $r['of'] > 0 ? round($r['own'] / $r['of'], 2) : null,
                'steps' => $r['steps'],
                'done' => $r['done'],
            ],
            array_keys($rows),
            $rows,
        );
    }

    /**
     * @return array<string, float> hours by who worked; under no name what nobody put one to
     */
    private function people(): array
    {
        $people = [];
        foreach ($this->sittings() as $sitting) {
            $people[$sitting['by'] ?? ''] = round(($people[$sitting['by'] ?? ''] ?? 0) + $sitting['worked'], 2);
        }

        return $people;
    }

    /**
     * Hours left that one in ten stays under, and one in ten goes over: by how much own hours have differed from the guide from step
     * to step, the fewer there are the wider. Null while too few are known.
     *
     * Of n steps done with the spread s of the logarithm of own over guide, what is left in pieces g has the spread
     * s·√(1/n + Σg²/(Σg)²).
     *
     * @return array{low: float, high: float}|null
     */
    public function band(): ?array
    {
        $logs = $left = [];
        $guide = $own = 0.0;
        foreach ($this->steps as $step) {
            $hours = $step->guide?->in('h') ?? 0.0;
            $worked = $step->worked($this->now)->in('h');
            if ($step->state === StepState::Done && $hours > 0 && $worked > 0) {
                $logs[] = log($worked / $hours);
                $guide += $hours;
                $own += $worked;
            } elseif ($step->state === StepState::Open && $hours > 0) {
                $left[] = $hours;
            }
        }
        if (count($logs) < self::STEPS || $left === []) {
            return null;
        }
        $mean = array_sum($logs) / count($logs);
        $spread = sqrt(
            array_sum(array_map(static fn (float $l): float => ($l - $mean) ** 2, $logs)) / (count($logs) - 1),
        );
        $sum = array_sum($left);
        $squares = array_sum(array_map(static fn (float $g): float => $g * $g, $left));
        $wide = self::NINE_OF_TEN * $spread * sqrt(1 / count($logs) + $squares / ($sum * $sum));
        $middle = ($sum * $own) / $guide;

        return ['low' => round($middle * exp(-$wide), 1), 'high' => round($middle * exp($wide), 1)];
    }
}
