<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Buying;

use Magpie\Core\Buying\Frontier;
use Magpie\Core\Buying\OrderReport;
use Magpie\Core\Buying\Split;
use Magpie\Core\Buying\SplitLimits;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Money\ToOrder;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Site\Protection;
use PHPUnit\Framework\TestCase;

/** What to order and where, worked by hand to the cent. */
final class SplitTest extends TestCase
{
    /**
     * Thirteen bearings and two belts, of which one is owned, from a near shop and a far one that taxes above 40.
     *
     * @param  array<string, mixed>  $with
     * @param  array<string, array<string, mixed>>  $offers  by ref, what is otherwise
     */
    private static function build(array $with = [], array $offers = []): Build
    {
        $parts = [];
        foreach ([['bearing', 'bearing', 13, 0], ['belt', 'belt', 2, 1]] as [$ref, $family, $quantity, $owned]) {
            [$part, $need] = Examples::part($ref, $family, []);
            $parts[] = [$part, ['quantity' => $quantity] + ($owned > 0 ? ['owned' => $owned] : []) + $need];
        }
        $all = [
            'near-ten' => ['part' => 'bearing', 'supplier' => 'near', 'price' => '9.00', 'pack' => 10],
            'near-one' => ['part' => 'bearing', 'supplier' => 'near', 'price' => '1.10'],
            'far-one' => ['part' => 'bearing', 'supplier' => 'far', 'price' => '0.50'],
            'near-belt' => ['part' => 'belt', 'supplier' => 'near', 'price' => '8.00'],
            'far-belt' => ['part' => 'belt', 'supplier' => 'far', 'price' => '6.00'],
        ];
        $list = [];
        foreach ($all as $ref => $offer) {
            $list[] = ($offers[$ref] ?? []) + ['ref' => $ref, 'date' => '2026-11-01'] + $offer;
        }

        return BuildFile::build(
            Examples::file(
                $parts,
                $with + [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP'],
                    'suppliers' => [
                        [
                            'ref' => 'near',
                            'name' => 'Near shop',
                            'currency' => 'GBP',
                            'lead_days' => 2,
                            'shipping' => [['from' => '0', 'cost' => '3.00'], ['from' => '25', 'cost' => '0']],
                        ],
                        [
                            'ref' => 'far',
                            'name' => 'Far shop',
                            'currency' => 'EUR',
                            'lead_days' => 20,
                            'tax' => '20 %',
                            'tax_free' => '10',
                            'shipping' => [['from' => '0', 'cost' => '4.00']],
                        ],
                    ],
                    'rates' => [
                        ['ref' => 'EUR-GBP', 'from' => 'EUR', 'to' => 'GBP', 'worth' => '0.80', 'date' => '2026-11-01'],
                    ],
                    'offers' => $list,
                ],
            ),
        );
    }

    public function test_the_cheapest_split_is_the_one_worked_by_hand(): void
    {
        // Near: one ten and three ones, 9.00 + 3.30 = 12.30; with the belt 20.30, and 3.00 to bring it: 23.30.
        // Far: 6.50 + 6.00 = 12.50 EUR, above 10: (12.50 + 4.00) × 1.2 = 19.80 EUR, 15.84 GBP. Bearings alone, untaxed:
        // 10.50 EUR = 8.40 GBP, and the belt near, 8.00 + 3.00: 19.40. All from far is cheapest.
        $split = new Split(self::build());
        self::assertSame('15.84', $split->landed()->amount());
        self::assertSame(['far'], array_keys($split->baskets));
        self::assertTrue($split->proven());
        self::assertSame(20, $split->days());
        // Here within a week it is 23.30, ten in a pack and three loose.
        $soon = new Split(self::build(), new SplitLimits(days: 7));
        self::assertSame('23.30', $soon->landed()->amount());
        $lines = array_column($soon->toArray()['lines'], null, 'part');
        self::assertSame(
            [['near-ten', 1], ['near-one', 3]],
            array_map(static fn (array $lot): array => [$lot['offer'], $lot['packs']], $lines['bearing']['lots']),
        );
        self::assertSame(0, $lines['bearing']['left_over']);
        // As an order, each line carries its share of the shipping: 23.30 by 12.30 to 8.00.
        $order = $soon->toArray()['baskets'][0]['order'];
        self::assertSame(
            [['bearing', 10, '10.33'], ['bearing', 3, '3.79'], ['belt', 1, '9.18']],
            array_map(static fn (array $l): array => [$l['part'], $l['pieces'], $l['agreed']], $order),
        );
        // What a day earlier costs, and what one supplier less would.
        $frontier = (new Frontier(self::build()))->toArray();
        self::assertSame(
            [[20, '15.84'], [2, '23.30']],
            array_map(static fn (array $p): array => [$p['days'], $p['landed']], $frontier['points']),
        );
        self::assertNull($frontier['fewer']);
    }

    public function test_price_breaks_least_orders_and_stock_count(): void
    {
        // From 12 packs each bearing is 0.60 near: 7.80, and with the belt 15.80 + 3.00.
        $breaks = ['near-one' => ['breaks' => [['from' => 12, 'price' => '0.60']]]];
        self::assertSame('18.80', (new Split(self::build([], $breaks), new SplitLimits(days: 7)))->landed()->amount());
        // No fewer than 20 far: 10.00 and 6.00 EUR, (16 + 4) × 1.2 × 0.8 = 19.20.
        self::assertSame('19.20', (new Split(self::build([], ['far-one' => ['least' => 20]])))->landed()->amount());
        // Nobody has thirteen: all ten near, and three far with the belt, (7.50 + 4.00) × 0.8 + 9.00 + 3.00.
        $short = new Split(
            self::build([], ['far-one' => ['stock' => 5], 'near-ten' => ['stock' => 1], 'near-one' => ['stock' => 0]]),
        );
        $line = array_column($short->toArray()['lines'], null, 'part')['bearing'];
        self::assertSame(
            [['near-ten', 1], ['far-one', 3]],
            array_map(static fn (array $lot): array => [$lot['offer'], $lot['packs']], $line['lots']),
        );
        self::assertSame('21.20', $short->landed()->amount());
        self::assertSame(0, $line['left_over']);
        self::assertSame('no supplier has enough alone', $line['why']);
        // Where all together have too few, the line is open and says so, and the rest is still split.
        $few = new Split(
            self::build(
                [],
                [
                    'far-one' => ['stock' => 5],
                    'near-ten' => ['stock' => 0],
                    'near-one' => ['stock' => 1],
                ],
            ),
        );
        self::assertSame('13 are wanted, and there are fewer in stock', $few->open[0]['why']);
        self::assertSame(['belt'], array_keys($few->bought));
    }

    /** Found in use: shipping was blamed where it was the tax. The reason is worked from what would change. */
    public function test_what_takes_a_saving_is_named_by_what_asks_it(): void
    {
        $why = static function (string $tax, string $shipping): string {
            $offer = static fn (string $ref, string $of, string $price): array => [
                'ref' => $ref, 'part' => 'belt', 'supplier' => $of, 'price' => $price, 'date' => '2026-11-01',
            ];
            $build = BuildFile::build([
                'magpie' => 2,
                'build' => ['name' => 'a', 'kind' => 'b', 'currency' => 'GBP'],
                'parts' => [['ref' => 'belt', 'family' => 'belt', 'name' => 'Belt']],
                'needs' => [['ref' => 'belt', 'role' => 'Belt', 'family' => 'belt', 'quantity' => 1, 'choice' => 'belt']],
                'suppliers' => [
                    ['ref' => 'near', 'name' => 'Near', 'currency' => 'GBP', 'shipping' => [['from' => '0', 'cost' => '2']]],
                    ['ref' => 'far', 'name' => 'Far', 'currency' => 'GBP', 'shipping' => [['from' => '0', 'cost' => $shipping]], 'tax' => $tax],
                ],
                'offers' => [$offer('1', 'near', '30'), $offer('2', 'far', '28')],
            ]);

            return (new Split($build))->toArray()['lines'][0]['why'];
        };
        // 28 + 2 with a fifth on top is 36 against 32: shipping is the same.
        self::assertSame('2.00 less at Far, but tax would be 6.00 more', $why('20 %', '2'));
        self::assertSame('2.00 less at Far, but shipping would be 5.00 more', $why('0 %', '7'));
        // (28 + 5) × 1.1: 3.30 of tax, 3 of shipping.
        self::assertSame('2.00 less at Far, but tax would be 3.30 more and shipping would be 3.00 more', $why('10 %', '5'));
    }

    public function test_settled_offers_and_suppliers_left_out_are_kept_to(): void
    {
        $pinned = new Split(self::build([], ['near-belt' => ['pinned' => true]]));
        self::assertSame('19.40', $pinned->landed()->amount());
        $line = array_column($pinned->toArray()['lines'], null, 'part')['belt'];
        self::assertSame('settled here', $line['why']);
        self::assertSame('23.30', (new Split(self::build(), new SplitLimits(without: ['far'])))->landed()->amount());
        $avoided = self::build();
        $data = BuildFile::data($avoided);
        $data['suppliers'][1]['avoid'] = true;
        self::assertSame('23.30', (new Split(BuildFile::build($data)))->landed()->amount());
        // Without a rate, what is priced abroad cannot be weighed, and says why.
        unset($data['rates'], $data['suppliers'][1]['avoid']);
        $data['offers'] = array_values(
            array_filter(
                $data['offers'],
                static fn (array $o): bool => $o['part'] !== 'belt' || $o['supplier'] === 'far',
            ),
        );
        self::assertSame(
            'it is priced in EUR, and no rate to GBP is given',
            (new Split(BuildFile::build($data)))->open[0]['why'],
        );
    }

    public function test_what_cannot_be_had_together_is_named_and_nothing_else(): void
    {
        $split = new Split(
            self::build([], ['near-belt' => ['lead_days' => 30]]),
            new SplitLimits(days: 7, most: 2, without: ['far']),
        );
        self::assertNotSame([], $split->open);
        self::assertSame(['all here within 7 days'], $split->conflict());
        // Settled near, everything else from one supplier only: the two cannot be had with far left in alone.
        $one = new Split(
            self::build([], ['near-belt' => ['pinned' => true], 'far-one' => ['pinned' => true]]),
            new SplitLimits(most: 1, days: 60),
        );
        self::assertFalse($one->solved());
        self::assertSame(['no more than 1 suppliers'], $one->conflict());
        self::assertSame([], (new Split(self::build()))->conflict());
    }

    public function test_what_nobody_budgets_is_on_the_list_until_it_is_at_hand(): void
    {
        $with = static fn (array $ready, ?bool $rcd, array ...$more): array => Protection::toBuy(
            BuildFile::build(
                Examples::file(
                    [Examples::part('bed', 'heater', []), Examples::part('inlet', 'mains_inlet', []), ...$more],
                    [
                        'magpie' => BuildFile::VERSION,
                        'build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP'],
                        'site' => array_filter(
                            ['ready' => $ready, 'residual_current_device' => $rcd],
                            static fn ($v): bool => $v !== null && $v !== [],
                        ),
                    ],
                ),
            ),
        );
        $all = $with([], null);
        self::assertCount(4, $all);
        self::assertStringStartsWith('Smoke alarm', $all[0]);
        // Said not to be there, or not said at all: it is on the list either way.
        self::assertCount(4, $with(['smoke_alarm' => false], false));
        self::assertSame(
            [],
            $with(['smoke_alarm' => true, 'extinguisher' => true], true, Examples::part('stop', 'stop_button', [])),
        );
        self::assertSame([], Protection::toBuy(self::build()), 'Bearings and belts ask for nothing.');
    }

    public function test_what_is_here_or_on_its_way_is_not_ordered_again(): void
    {
        $bought = static fn (array $purchase): Build => self::build([
            'purchases' => [
                $purchase + [
                    'ref' => 'B1',
                    'part' => 'bearing',
                    'supplier' => 'near',
                    'pieces' => 13,
                    'paid' => '13',
                    'date' => '2026-11-02',
                ],
            ],
        ]);
        $order = static fn (Build $build): int => array_column(
            array_map(static fn ($l): array => $l->toArray(), ToOrder::of($build)),
            null,
            'part',
        )['bearing']['order'];
        self::assertSame(13, $order(self::build()));
        self::assertSame(0, $order($bought([])));
        self::assertSame(0, $order($bought(['received' => 13])));
        self::assertSame(2, $order($bought(['received' => 13, 'accepted' => 11, 'returned' => 2])));
        self::assertSame(13, $order($bought(['state' => 'considered'])));
        self::assertSame(13, $order($bought(['state' => 'abandoned'])));
        self::assertSame(9, $order($bought(['state' => 'abandoned', 'received' => 4])));
        // Halved and doubled quantities stand out before they are ordered.
        $doubts = static fn (Build $build): array => array_column(
            array_map(static fn ($l): array => $l->toArray(), ToOrder::of($build)),
            null,
            'part',
        )['bearing']['doubts'];
        self::assertSame([], $doubts($bought([])));
        self::assertSame(
            ['needed 13, in the basket and at hand 6'],
            $doubts($bought(['state' => 'considered', 'pieces' => 6])),
        );
        self::assertSame(['needed 13, with what is bought 26, twice as many'], $doubts($bought(['pieces' => 26])));
    }

    public function test_two_orders_for_the_last_pieces_stand_out(): void
    {
        $doubts = static function (array $purchase, array $offers): array {
            $bought = [
                'ref' => 'B1',
                'part' => 'bearing',
                'supplier' => 'far',
                'pieces' => 13,
                'paid' => '6',
                'date' => '2026-11-02',
            ];
            $lines = ToOrder::of(self::build(['purchases' => [$purchase + $bought]], $offers));

            return array_column(array_map(static fn ($l): array => $l->toArray(), $lines), 'doubts', 'part')['bearing'];
        };
        $eight = ['far-one' => ['stock' => 8]];

        self::assertSame(['13 are asked of Far shop, which had 8 on 2026-11-01'], $doubts([], $eight));
        self::assertSame([], $doubts([], ['far-one' => ['stock' => 13]]));
        self::assertSame([], $doubts([], []), 'Nobody said how many there are.');
        self::assertSame([], $doubts(['date' => '2026-10-30'], $eight), 'Ordered before they were counted.');
        self::assertSame([], $doubts(['received' => 13], $eight));
    }

    public function test_what_is_here_soonest_within_a_ceiling_is_found(): void
    {
        // Far: 13 × 0.50 and 6.00 with their tax and shipping, after twenty days; near after two.
        $points = (new Frontier(self::build()))->toArray()['points'];
        self::assertCount(2, $points);
        [$cheap, $soon] = $points;
        $at = static fn (string $money): array => (new OrderReport(
            self::build(),
            new SplitLimits(ceiling: Money::of($money, 'GBP')),
        ))->toArray();

        self::assertSame($soon['days'], $at($soon['landed'])['split']['days']);
        self::assertSame($soon['landed'], $at('999')['split']['landed']);
        $between = Money::of($soon['landed'], 'GBP')->minus(Money::of('0.01', 'GBP'))->amount();
        self::assertSame($cheap['days'], $at($between)['split']['days']);
        $beyond = $at('5.00');
        self::assertSame(
            ["no more than GBP\u{a0}5.00 in all: the least is GBP\u{a0}{$cheap['landed']}"],
            $beyond['conflict'],
        );
        self::assertSame(
            $cheap['landed'],
            $beyond['split']['landed'],
            'What it costs at the least is shown all the same.',
        );
    }
}
