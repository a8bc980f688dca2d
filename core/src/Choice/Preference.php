<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

/**
 * A builder's weighting of what is compared: each weighted value of a candidate as its place between the worst and the
 * best on offer, and the weighted mean of those. What a candidate does not state earns nothing.
 */
final readonly class Preference
{
    /** Compared for every family, less of it being better. */
    public const ALWAYS = ['landed', 'lead_days', 'mass', 'watts'];

    /**
     * @param  array<string, int>  $weights  by spec key or one of ALWAYS
     */
    public function __construct(private array $weights)
    {
    }

    /**
     * @param  list<array{key: string, better: string|null, cells: list<array{size: float|null, ...}|null>}>  $rows
     * @param  list<array{part: string, landed: string|null, lead_days: int|null, mass: string|null,
     *     watts: string|null, ...}>  $candidates
     * @return array<string, float|null> by part, 0 to 1; null when nothing is weighted
     */
    public function scores(array $rows, array $candidates): array
    {
        $columns = [];
        foreach ($rows as $row) {
            if ($row['better'] !== null) {
                $columns[$row['key']] = [
                    $row['better'],
                    array_map(static fn (?array $c): ?float => $c['size'] ?? null, $row['cells']),
                ];
            }
        }
        foreach (self::ALWAYS as $key) {
            $columns[$key] ??= [
                'less',
                array_map(static fn (array $c): ?float => $c[$key] === null ? null : (float) $c[$key], $candidates),
            ];
        }
        $sum = array_fill(0, count($candidates), 0.0);
        $whole = 0;
        foreach ($this->weights as $key => $weight) {
            [$better, $values] = $columns[$key] ?? [null, []];
            $known = array_filter($values, static fn (?float $v): bool => $v !== null);
            if ($better === null || $weight === 0 || $known === []) {
                continue;
            }
            [$least, $most] = [min($known), max($known)];
            foreach ($values as $i => $value) {
                $place = $value === null ? 0.0 : ($most > $least ? ($value - $least) / ($most - $least) : 1.0);
                $sum[$i] += $weight * ($value !== null && $better === 'less' && $most > $least ? 1 - $place : $place);
            }
            $whole += $weight;
        }
        $scores = [];
        foreach ($candidates as $i => $candidate) {
            $scores[$candidate['part']] = $whole === 0 ? null : round($sum[$i] / $whole, 4);
        }

        return $scores;
    }

    /**
     * Best first; whatever is preferred, one that fails or is a danger comes after all that do not.
     *
     * @param  list<array{part: string, barred: bool, blocked: list<string>, ...}>  $candidates
     * @param  array<string, float|null>  $scores
     * @return list<string> parts
     */
    public static function order(array $candidates, array $scores): array
    {
        usort(
            $candidates,
            static fn (array $a, array $b): int => [
                $a['barred'] || $a['blocked'] !== [],
                -($scores[$a['part']] ?? 0),
            ] <=> [$b['barred'] || $b['blocked'] !== [], -($scores[$b['part']] ?? 0)],
        );

        return array_column($candidates, 'part');
    }
}
