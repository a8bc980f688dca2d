<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Money;

use Magpie\Core\Money\OrderLine;
use Magpie\Core\Money\ToOrder;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Ten clips are needed, and one to spare: what is still to be ordered, and what is said before it is. */
final class ToOrderTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $need
     * @param  list<array<string, mixed>>  $purchases
     * @param  list<array<string, mixed>>  $offers
     * @param  array<string, mixed>  $more
     */
    private static function clip(
        array $need = [],
        array $purchases = [],
        array $offers = [],
        array $more = [],
    ): OrderLine {
        $each = static fn (array $rows, array $like): array => array_map(
            static fn (array $row, int $i): array => $row + ['ref' => "r{$i}"] + $like,
            $rows,
            array_keys($rows),
        );
        $build = (new SampleBuild(
            [
                'parts' => [
                    ['ref' => 'clip', 'family' => 'consumable', 'name' => 'Clip'],
                    ['ref' => 'other', 'family' => 'consumable', 'name' => 'Other'],
                ],
                'needs' => [
                    $need + [
                        'ref' => 'clips',
                        'role' => 'Clips',
                        'family' => 'consumable',
                        'quantity' => 10,
                        'spares' => '10 %',
                        'choice' => 'clip',
                        'candidates' => ['clip'],
                    ],
                ],
                'suppliers' => [
                    ['ref' => 'a', 'name' => 'Shop A', 'currency' => 'GBP'],
                    ['ref' => 'b', 'name' => 'Shop B', 'currency' => 'GBP'],
                ],
                'purchases' => $each($purchases, [
                    'part' => 'clip',
                    'supplier' => 'a',
                    'pieces' => 1,
                    'paid' => '1',
                    'date' => '2026-11-02',
                ]),
                'offers' => $each($offers, [
                    'part' => 'clip',
                    'supplier' => 'a',
                    'price' => '1',
                    'date' => '2026-11-01',
                ]),
            ] + $more,
        ))->build;

        return array_column(array_map(static fn (OrderLine $l): array => [$l->part, $l], ToOrder::of($build)), 1, 0)[
            'clip'
        ];
    }

    /**
     * @return iterable<string, array{array<string, mixed>, list<array<string, mixed>>, int, int}>
     */
    public static function counts(): iterable
    {
        yield 'nothing is there' => [[], [], 11, 0];
        yield 'four in the drawer' => [['owned' => 4], [], 7, 0];
        yield 'four here and three on their way' => [[], [['pieces' => 7, 'received' => 4]], 4, 0];
        yield 'in the basket, ordered by nobody' => [[], [['pieces' => 6, 'state' => 'considered']], 11, 0];
        yield 'just enough' => [['owned' => 1], [['pieces' => 10]], 0, 0];
        yield 'two too many' => [['owned' => 4], [['pieces' => 9, 'received' => 9]], 0, 2];
        yield 'no spares asked for' => [['spares' => '0 %'], [], 10, 0];
    }

    /**
     * @param  array<string, mixed>  $need
     * @param  list<array<string, mixed>>  $purchases
     */
    #[DataProvider('counts')]
    public function test_what_is_missing_and_what_is_over(array $need, array $purchases, int $order, int $over): void
    {
        $line = self::clip($need, $purchases);

        self::assertSame([$order, $over, 0], [$line->order(), $line->over(), $line->print()]);
    }

    /**
     * @return iterable<string, array{array<string, mixed>, list<array<string, mixed>>, list<array<string, mixed>>, list<string>}>
     */
    public static function doubtful(): iterable
    {
        $six = ['pieces' => 6, 'state' => 'considered'];
        yield 'enough in the basket' => [[], [['pieces' => 11] + $six], [], []];
        yield 'half of it' => [
            ['quantity' => 11],
            [$six, ['pieces' => 1]],
            [],
            ['needed 13, in the basket and at hand 7'],
        ];
        yield 'just half' => [['spares' => '20 %'], [$six], [], ['needed 12, in the basket and at hand 6, half of it']];
        yield 'ordered and not in the basket' => [[], [['pieces' => 6]], [], []];
        yield 'twice as many' => [
            ['owned' => 4],
            [['pieces' => 18]],
            [],
            ['needed 11, with what is bought 22, twice as many'],
        ];
        yield 'one too many, in the basket' => [
            [],
            [['pieces' => 12] + $six],
            [],
            ['needed 11, with what is bought 12'],
        ];
        yield 'more at hand than is needed, none bought' => [['owned' => 30], [], [], []];
        yield 'a backup that is there' => [
            ['purpose' => 'backup', 'owned' => 10, 'spares' => '0 %'],
            [['pieces' => 1]],
            [],
            ['needed 10, with what is bought 11', 'Clips is a backup that is there already'],
        ];
        yield 'a backup of which one is missing' => [
            ['purpose' => 'backup', 'owned' => 9, 'spares' => '0 %'],
            [['pieces' => 1]],
            [],
            [],
        ];
        yield 'a backup that is there, and nothing bought' => [
            ['purpose' => 'backup', 'owned' => 10, 'spares' => '0 %'],
            [],
            [],
            [],
        ];
        yield 'another article' => [
            [],
            [['article' => 'K-1']],
            [['article' => 'K-2']],
            ['article K-1 was bought, K-2 was offered'],
        ];
        yield 'the same article' => [[], [['article' => 'K-1']], [['article' => 'K-1']], []];
        yield 'another article of another shop' => [
            [],
            [['article' => 'K-1']],
            [['article' => 'K-2', 'supplier' => 'b']],
            [],
        ];
        yield 'another article of another part' => [
            [],
            [['article' => 'K-1']],
            [['article' => 'K-2', 'part' => 'other']],
            [],
        ];
        yield 'an article nobody said' => [[], [['article' => 'K-1']], [[]], []];
        yield 'two offers hold enough together, in packs' => [
            [],
            [['pieces' => 11]],
            [['stock' => 2, 'pack' => 4], ['stock' => 3]],
            [],
        ];
        yield 'one more than they hold, counted on the later day' => [
            [],
            [['pieces' => 5], ['pieces' => 5], ['pieces' => 1] + $six],
            [['stock' => 2, 'pack' => 4], ['stock' => 2, 'date' => '2026-11-02']],
            ['11 are asked of Shop A, which had 10 on 2026-11-02'],
        ];
        yield 'one of two offers does not say' => [[], [['pieces' => 11]], [['stock' => 2], []], []];
        yield 'asked of a shop nothing is known of' => [
            [],
            [['pieces' => 11, 'supplier' => 'b']],
            [['stock' => 2]],
            [],
        ];
        yield 'worth less than the least of two offers' => [
            ['worth' => '0.45'],
            [],
            [['price' => '4.60', 'pack' => 10], ['price' => '0.50']],
            ["a piece costs GBP\u{a0}0.46 at least, and is worth GBP\u{a0}0.45 to you"],
        ];
        yield 'the same, the other way about' => [
            ['worth' => '0.45'],
            [],
            [['price' => '0.50'], ['price' => '4.60', 'pack' => 10]],
            ["a piece costs GBP\u{a0}0.46 at least, and is worth GBP\u{a0}0.45 to you"],
        ];
        yield 'worth more than the least' => [
            ['worth' => '0.47'],
            [],
            [['price' => '0.50'], ['price' => '4.60', 'pack' => 10]],
            [],
        ];
    }

    /**
     * @param  array<string, mixed>  $need
     * @param  list<array<string, mixed>>  $purchases
     * @param  list<array<string, mixed>>  $offers
     * @param  list<string>  $doubts
     */
    #[DataProvider('doubtful')]
    public function test_what_is_said_before_it_is_ordered(
        array $need,
        array $purchases,
        array $offers,
        array $doubts,
    ): void {
        self::assertSame($doubts, self::clip($need, $purchases, $offers)->doubts);
    }

    public function test_what_is_bought_for_nothing_is_told_until_it_has_gone(): void
    {
        $for = static fn (array $purchase): array => self::clip(
            ['choice' => 'other', 'candidates' => ['other', 'clip']],
            [$purchase],
        )->doubts;
        $says = 'for nothing in this build: say what it is for, or let it move to another';

        self::assertSame([$says], $for([]));
        self::assertSame([$says], $for(['received' => 1]));
        self::assertSame([], $for(['received' => 1, 'moved' => 1]));
    }

    public function test_of_two_needs_the_one_it_is_worth_less_to_counts_and_their_pieces_are_one_order(): void
    {
        $second = [
            'ref' => 'more',
            'role' => 'More clips',
            'family' => 'consumable',
            'quantity' => 5,
            'choice' => 'clip',
            'worth' => '0.60',
        ];
        $build = static fn (string $worth): OrderLine => ToOrder::of(
            (new SampleBuild([
                'parts' => [['ref' => 'clip', 'family' => 'consumable', 'name' => 'Clip']],
                'needs' => [
                    ['ref' => 'clips', 'role' => 'Clips', 'quantity' => 10, 'worth' => $worth] + $second,
                    $second,
                ],
                'suppliers' => [['ref' => 'a', 'name' => 'Shop A', 'currency' => 'GBP']],
                'offers' => [
                    ['ref' => 'o', 'part' => 'clip', 'supplier' => 'a', 'price' => '0.55', 'date' => '2026-11-01'],
                ],
            ]))->build,
        )[0];

        self::assertSame(15, $build('0.50')->order());
        self::assertSame(
            ["a piece costs GBP\u{a0}0.55 at least, and is worth GBP\u{a0}0.50 to you"],
            $build('0.50')->doubts,
        );
        self::assertSame([], $build('0.70')->doubts);
    }
}
