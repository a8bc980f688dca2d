<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Money\OrderLine;
use Magpie\Core\Printing\Recipe;

/**
 * Reels of plastic by material and colour (M14): what is still to be printed, a tenth more for purge and failures, and what
 * was printed off them already, against what is on the reels.
 *
 * @phpstan-type ReelRow array{stuff: string, material: string, grams: float, used: float, held: float, there: int, coming: int,
 *     reel: float, more: int, parts: list<string>, stuffs: list<string>, assumed: list<string>}
 */
final readonly class Reels
{
    /** Grams of a reel where none of the kind is listed: the usual one. */
    private const REEL = 1000.0;

    /** A tenth more for purge and failures: common practice, no source. */
    private const MORE = 1.1;

    /**
     * @param  array<string, OrderLine>  $wanted  by part
     * @param  array<string, Recipe>  $recipes  of what is printed, by part
     * @param  array<string, float>  $each  grams of one piece, by part, where that is known
     * @return list<ReelRow> what lacks most first
     */
    public static function of(Build $build, array $wanted, array $recipes, array $each): array
    {
        $plain = self::plain($recipes);
        $rows = [];
        foreach ($recipes as $part => $recipe) {
            if ($recipe->material === null) {
                continue;
            }
            $colour = isset($plain[$recipe->material]) ? null : $recipe->colour;
            $stuff = trim("{$colour} {$recipe->material}");
            $rows[$stuff] ??= [
                'stuff' => $stuff,
                'material' => $recipe->material,
                'grams' => 0.0,
                'used' => 0.0,
                'held' => 0.0,
                'there' => 0,
                'coming' => 0,
                'reel' => 0.0,
                'more' => 0,
                'parts' => [],
                'stuffs' => [],
                'assumed' => [],
            ];
            $left = ($wanted[$part] ?? null)?->print() ?? 0;
            if ($left > 0) {
                $rows[$stuff]['grams'] += ($each[$part] ?? 0.0) * $left * self::MORE;
                $rows[$stuff]['parts'][] = $build->parts[$part]->name;
                $rows[$stuff]['stuffs'][] = $recipe->stuff();
                if (! isset($each[$part])) {
                    $rows[$stuff]['assumed'][] = "{$build->parts[$part]->name} not counted: its mass cannot be told";
                }
            }
            foreach ($build->prints as $run) {
                // What was weighed is what was used, also of a batch that came out too light.
                $one = $run->part === $part ? $run->mass?->in('g') ?? ($each[$part] ?? 0.0) : 0.0;
                $rows[$stuff]['used'] += $one * ($run->good + $run->failed);
            }
        }
        foreach ($rows as $stuff => $row) {
            $rows[$stuff] = self::held($build, $row, $wanted, isset($plain[$row['material']]));
        }
        $rows = array_filter($rows, static fn (array $r): bool => $r['parts'] !== []);
        usort($rows, static fn (array $a, array $b): int => [-$a['more'], $a['stuff']] <=> [-$b['more'], $b['stuff']]);

        return $rows;
    }

    /**
     * Materials some part of which has no colour: nobody has said which reel it is printed from, so they are counted as one.
     *
     * @param  array<string, Recipe>  $recipes
     * @return array<string, true>
     */
    private static function plain(array $recipes): array
    {
        $plain = [];
        foreach ($recipes as $recipe) {
            if ($recipe->material !== null && $recipe->colour === null) {
                $plain[$recipe->material] = true;
            }
        }

        return $plain;
    }

    /**
     * @param  ReelRow  $row
     * @param  array<string, OrderLine>  $wanted
     * @return ReelRow with what is on the reels, and how many more it takes
     */
    private static function held(Build $build, array $row, array $wanted, bool $plain): array
    {
        $grams = 0.0;
        foreach ($build->parts as $part) {
            $reel = $part->can(Ability::Feedstock) ? Recipe::of($part) : null;
            $line = $wanted[$part->ref] ?? null;
            if ($reel === null || $line === null || $reel->material !== $row['material']) {
                continue;
            }
            if (! $plain && $reel->stuff() !== $row['stuff']) {
                continue;
            }
            $mass = $part->spec('mass')?->nominal()?->in('g');
            if ($mass === null) {
                $row['assumed'][] = sprintf('%g g on %s, since its sheet does not say', self::REEL, $part->name);
            }
            $row['reel'] = max($row['reel'], $mass ?? self::REEL);
            $there = $line->owned + $line->here;
            $row['there'] += $there;
            $row['coming'] += $line->coming;
            $row['held'] += $there * ($mass ?? self::REEL);
            $grams += ($there + $line->coming) * ($mass ?? self::REEL);
        }
        if ($row['reel'] === 0.0) {
            $row['reel'] = self::REEL;
            $row['assumed'][] = sprintf('a reel of %g g, since none of this is on the list', self::REEL);
        }
        $row['more'] = (int) max(0.0, ceil(($row['grams'] + $row['used'] - $grams) / $row['reel'] - 1e-9));
        $row['grams'] = round($row['grams'], 1);
        $row['used'] = round($row['used'], 1);

        return $row;
    }
}
