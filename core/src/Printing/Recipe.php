<?php

declare(strict_types=1);

namespace Magpie\Core\Printing;

use Magpie\Core\Machine\Part;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Materials;

/**
 * What a printed part takes of plastic, from its sheet (M14): weighed or told, or by volume, walls and infill. Of its
 * walls' share, where nobody says it, surface times their thickness over the volume, which no convex body exceeds.
 */
final readonly class Recipe
{
    /** A piece lighter than this share of its recipe comes of a thin batch: common practice, no source. */
    public const THIN = 0.85;

    /** Width of a line where the sheet does not say: common practice, no source. */
    public const LINE = 0.45;

    /** More plastic for supports, as a share: common practice, no source. */
    private const SUPPORTS = ['none' => 0.0, 'some' => 0.1, 'much' => 0.25];

    /**
     * @param  float|null  $mass  g of one piece without supports; null when it cannot be told
     * @param  float|null  $byRecipe  g of one piece by volume, walls and infill, whatever was weighed
     * @param  float|null  $plastic  mm³ laid down for one piece, supports and all
     * @param  list<string>  $missing  specs that would tell
     * @param  list<string>  $assumed  what is taken for granted
     */
    private function __construct(
        public ?string $material,
        public ?string $colour,
        public ?float $mass,
        public ?float $byRecipe,
        public ?float $plastic,
        public ?float $wallShare,
        public array $missing,
        public array $assumed,
    ) {
    }

    public static function of(Part $part): self
    {
        $word = static function (string $key) use ($part): ?string {
            $value = $part->spec($key)?->value;

            return is_string($value) && trim($value) !== '' ? trim($value) : null;
        };
        $of = static fn (string $key): ?Quantity => $part->spec($key)?->nominal();
        $missing = $assumed = [];
        $material = $word('material');
        $density = $material === null ? null : Materials::density($material);
        if ($density === null) {
            $missing[] = 'material';
        }
        [$share, $told] = self::walls($of);
        if ($told !== null) {
            $assumed[] = $told;
        }
        [$volume, $infill] = [$of('volume'), $of('infill')];
        $byRecipe =
            $density === null || $volume === null || $infill === null || $share === null
                ? null
                : self::weigh($density, $volume->in('cm³'), $share, $infill->in(''));
        $given = $of('mass')?->in('g');
        $mass = $given ?? $byRecipe;
        if ($mass === null) {
            foreach (['volume' => $volume, 'infill' => $infill, 'wall_share' => $share] as $key => $value) {
                $missing = $value === null ? [...$missing, $key] : $missing;
            }
        }
        $supports = $word('supports');
        if ($supports === null) {
            $assumed[] = 'no supports, since its sheet does not say';
        }
        $more = 1 + (self::SUPPORTS[$supports ?? 'none'] ?? 0.0);

        return new self(
            $material,
            $word('colour') === null ? null : mb_strtolower((string) $word('colour')),
            $mass,
            $byRecipe,
            $mass === null || $density === null ? null : ($mass * $more * 1e6) / $density,
            $share,
            $missing,
            $assumed,
        );
    }

    /** Grams off the reel for one piece, supports and all. */
    public function grams(): ?float
    {
        $density = $this->material === null ? null : Materials::density($this->material);

        return $this->plastic === null || $density === null ? $this->mass : ($this->plastic * $density) / 1e6;
    }

    /** What it is printed from, as one says it: "black ASA". */
    public function stuff(): string
    {
        return trim("{$this->colour} ".($this->material ?? 'some plastic'));
    }

    /**
     * @param  callable(string): ?Quantity  $of
     * @return array{float|null, string|null} the share, and what is taken for granted in it
     */
    private static function walls(callable $of): array
    {
        $told = $of('wall_share');
        if ($told !== null) {
            return [min(1.0, $told->in('')), null];
        }
        [$area, $volume, $walls, $line] = [$of('area'), $of('volume'), $of('walls'), $of('line_width')];
        if ($area === null || $volume === null || $walls === null || ! $volume->isPositive()) {
            return [null, null];
        }

        return [
            self::wallShare($area->in('mm²'), $walls->in(''), $line?->in('mm') ?? self::LINE, $volume->in('mm³')),
            $line === null ? sprintf('lines of %g mm, since its sheet does not say', self::LINE) : null,
        ];
    }

    /** Grams by kg/m³, cm³ and the shares of wall and infill. */
    public static function weigh(float $density, float $volume, float $walls, float $infill): float
    {
        return ($density / 1000) * $volume * ($walls + (1 - $walls) * min(1.0, $infill));
    }

    /** Surface in mm², so many walls of a line in mm, over mm³: what no convex body exceeds. */
    public static function wallShare(float $area, float $walls, float $line, float $volume): float
    {
        return min(1.0, ($area * $walls * $line) / $volume);
    }

    /** Whether what was weighed lies so far below the recipe that walls or infill are missing. */
    public static function isThin(float $weighed, float $byRecipe): bool
    {
        return $weighed < self::THIN * $byRecipe;
    }
}
