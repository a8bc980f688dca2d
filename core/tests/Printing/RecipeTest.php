<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Printing;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Printing\Recipe;
use PHPUnit\Framework\TestCase;

/** What a piece takes of plastic: m = ρ V (w + (1 − w) i), w = A n b / V, by hand; ASA has 1070 kg/m³. */
final class RecipeTest extends TestCase
{
    /**
     * @param  array<string, string>  $sheet
     */
    private static function of(array $sheet): Recipe
    {
        $build = BuildFile::build(Examples::file([Examples::part('it', 'printed_part', $sheet)], [
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
        ]));

        return Recipe::of(array_values($build->parts)[0]);
    }

    private const SHEET = ['material' => 'ASA', 'colour' => 'Black', 'volume' => '20 cm³', 'infill' => '40 %', 'supports' => 'none'];

    public function test_a_piece_by_its_walls_share(): void
    {
        $it = self::of(self::SHEET + ['wall_share' => '45 %']);
        $grams = 1.07 * 20 * (0.45 + 0.55 * 0.4);
        self::assertEqualsWithDelta([$grams, $grams, 0.45], [$it->mass, $it->byRecipe, $it->wallShare], 1e-9);
        self::assertEqualsWithDelta(20e3 * (0.45 + 0.55 * 0.4), $it->plastic, 1e-6);
        self::assertEqualsWithDelta($grams, $it->grams(), 1e-9);
        self::assertSame(['black ASA', [], []], [$it->stuff(), $it->missing, $it->assumed]);
    }

    /** 60 cm² of walls, three lines of 0.45 mm: 8100 of 20000 mm³ are wall, or of 0.6 mm 10800; never more than all of it. */
    public function test_a_piece_by_its_surface_and_walls(): void
    {
        $walls = ['area' => '60 cm²', 'walls' => '3'];
        $it = self::of(self::SHEET + $walls);
        self::assertEqualsWithDelta(0.405, $it->wallShare, 1e-9);
        self::assertSame(['lines of 0.45 mm, since its sheet does not say'], $it->assumed);
        $wide = self::of(self::SHEET + $walls + ['line_width' => '0.6 mm']);
        self::assertEqualsWithDelta(0.54, $wide->wallShare, 1e-9);
        self::assertSame([], $wide->assumed);
        self::assertEqualsWithDelta(1.0, self::of(self::SHEET + ['area' => '600 cm²', 'walls' => '3'])->wallShare, 1e-9);
        foreach (['area' => '60 cm²', 'walls' => '3'] as $key => $value) {
            $half = self::of(self::SHEET + [$key => $value]);
            self::assertSame([null, null, ['wall_share']], [$half->wallShare, $half->mass, $half->missing]);
        }
    }

    public function test_what_was_weighed_counts_and_supports_come_on_top(): void
    {
        $it = self::of(['supports' => 'some', 'mass' => '15 g'] + self::SHEET + ['wall_share' => '45 %']);
        self::assertEqualsWithDelta(15.0, $it->mass, 1e-9);
        self::assertEqualsWithDelta(1.07 * 20 * 0.67, $it->byRecipe, 1e-9);
        self::assertEqualsWithDelta(15 * 1.1, $it->grams(), 1e-9);
        self::assertEqualsWithDelta(15 * 1.25, self::of(['supports' => 'much', 'mass' => '15 g'] + self::SHEET)->grams(), 1e-9);
        $silent = self::of(['material' => 'ASA', 'mass' => '15 g']);
        self::assertSame([['no supports, since its sheet does not say'], [], 'ASA'], [$silent->assumed, $silent->missing, $silent->stuff()]);
        self::assertEqualsWithDelta(15.0, $silent->grams(), 1e-9);
    }

    public function test_what_is_not_said_is_missing_and_nothing_is_weighed(): void
    {
        $bare = self::of([]);
        self::assertSame(['material', 'volume', 'infill', 'wall_share'], $bare->missing);
        self::assertSame([null, null, null, 'some plastic'], [$bare->mass, $bare->plastic, $bare->grams(), $bare->stuff()]);
        // Weighed, of something nobody knows: so much comes off the reel, and nobody can tell its volume.
        $weighed = self::of(['mass' => '15 g', 'supports' => 'none']);
        self::assertSame([['material'], 15.0, null], [$weighed->missing, $weighed->grams(), $weighed->plastic]);
        self::assertSame(['volume'], self::of(array_diff_key(self::SHEET, ['volume' => 1]) + ['wall_share' => '45 %'])->missing);
        self::assertSame(['infill'], self::of(array_diff_key(self::SHEET, ['infill' => 1]) + ['wall_share' => '45 %'])->missing);
    }

    public function test_a_batch_is_thin_below_85_per_cent_of_its_recipe(): void
    {
        self::assertSame([true, false], [Recipe::isThin(84.9, 100), Recipe::isThin(85.0, 100)]);
    }
}
