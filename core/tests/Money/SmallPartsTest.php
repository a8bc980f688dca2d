<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Money;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** S07: of twenty screws two are to spare, of twenty-one three. */
final class SmallPartsTest extends TestCase
{
    /**
     * @return iterable<string, array{array<string, mixed>, list<int>, int, Verdict, string}>
     */
    public static function spares(): iterable
    {
        yield 'none' => [
            [],
            [],
            1,
            Verdict::Tight,
            '20 needed, 0 to spare: one that is lost or fails stops the work. 2 would do.',
        ];
        yield 'one' => [
            ['spares' => '5 %'],
            [],
            1,
            Verdict::Tight,
            '20 needed, 1 to spare: one that is lost or fails stops the work. 2 would do.',
        ];
        yield 'just two' => [['spares' => '10 %'], [], 1, Verdict::Holds, '20 needed, 2 to spare.'];
        yield 'two of twenty-one' => [
            ['quantity' => 21, 'spares' => '9 %'],
            [],
            1,
            Verdict::Tight,
            '21 needed, 2 to spare: one that is lost or fails stops the work. 3 would do.',
        ];
        yield 'two more in the drawer' => [['owned' => 22], [], 1, Verdict::Holds, '20 needed, 2 to spare.'];
        yield 'one more in the drawer' => [
            ['owned' => 21],
            [],
            1,
            Verdict::Tight,
            '20 needed, 1 to spare: one that is lost or fails stops the work. 2 would do.',
        ];
        yield 'what a pack leaves over' => [[], [25], 1, Verdict::Holds, '20 needed, 5 to spare.'];
        yield 'what the smaller pack leaves over' => [
            [],
            [25, 7],
            1,
            Verdict::Tight,
            '20 needed, 1 to spare: one that is lost or fails stops the work. 2 would do.',
        ];
        yield 'packs for what the drawer has not' => [
            ['owned' => 15],
            [4],
            1,
            Verdict::Holds,
            '20 needed, 3 to spare.',
        ];
        yield 'what packs leave is for another as well' => [
            [],
            [25],
            2,
            Verdict::Tight,
            '20 needed, 0 to spare: one that is lost or fails stops the work. 2 would do.',
        ];
        yield 'what is ordered for it is not' => [
            ['spares' => '10 %'],
            [25],
            2,
            Verdict::Holds,
            '20 needed, 2 to spare.',
        ];
    }

    /**
     * @param  array<string, mixed>  $need
     * @param  list<int>  $packs  pieces in each that is offered
     * @param  int  $takers  needs that take the same screw
     */
    #[DataProvider('spares')]
    public function test_what_is_to_spare_counts_packs_and_the_drawer(
        array $need,
        array $packs,
        int $takers,
        Verdict $verdict,
        string $says,
    ): void {
        $like = ['role' => 'Screws', 'family' => 'screw', 'quantity' => 20, 'choice' => 's', 'candidates' => ['s']];
        $needs = [$need + ['ref' => 's'] + $like];
        for ($i = 1; $i < $takers; $i++) {
            $needs[] = ['ref' => "s{$i}", 'spares' => '50 %'] + $like;
        }
        $finding = (new SampleBuild([
            'parts' => [['ref' => 's', 'family' => 'screw', 'name' => 'M5 × 16']],
            'needs' => $needs,
            'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP']],
            'offers' => array_map(
                static fn (int $pack): array => [
                    'ref' => "o{$pack}",
                    'part' => 's',
                    'supplier' => 'shop',
                    'price' => '1',
                    'pack' => $pack,
                    'date' => '2026-11-01',
                ],
                $packs,
            ),
        ]))->finding('S07/s');

        self::assertSame([$verdict, $says], [$finding->verdict, $finding->headline]);
    }
}
