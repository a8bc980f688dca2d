<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Routes;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Routes\TrueCost;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

final class TrueCostTest extends TestCase
{
    /**
     * @return array<string, mixed>
     */
    private function file(): array
    {
        $file = Examples::file(
            [
                Examples::part('rail', 'linear_rail', []),
                Examples::part('stop', 'stop_button', []),
                Examples::part('nut', 'nut', []),
                Examples::part('lock', 'consumable', []),
                Examples::part('tap', 'tool', []),
            ],
            [
                'suppliers' => [
                    [
                        'ref' => 'shop',
                        'name' => 'Shop',
                        'currency' => 'GBP',
                        'shipping' => [['from' => '0', 'cost' => '5']],
                    ],
                ],
                'offers' => array_map(
                    static fn (string $part, string $price, int $pack): array => [
                        'ref' => "o-{$part}",
                        'part' => $part,
                        'supplier' => 'shop',
                        'price' => $price,
                        'pack' => $pack,
                        'date' => '2026-11-01',
                    ],
                    ['rail', 'stop', 'nut', 'lock', 'tap'],
                    ['40', '9', '5', '6', '12'],
                    [1, 1, 10, 1, 1],
                ),
                'purchases' => [
                    [
                        'ref' => 'p',
                        'part' => 'rail',
                        'supplier' => 'shop',
                        'pieces' => 1,
                        'paid' => '45',
                        'date' => '2026-11-02',
                    ],
                ],
                'faults' => [
                    ['ref' => 'f', 'what' => 'Bent', 'severity' => 'defect', 'found' => '2026-11-03', 'cost' => '7'],
                ],
                'routes' => [
                    [
                        'ref' => 'built',
                        'name' => 'Built',
                        'kind' => 'ready-built',
                        'lines' => [['what' => 'Machine', 'kind' => 'box', 'price' => '300', 'supplier' => 'shop']],
                        'hours' => ['tuning' => '1 h'],
                    ],
                ],
            ],
        );
        $file['needs'][0]['quantity'] = 2;
        $file['needs'][1]['purpose'] = 'safety';
        // 18 nuts, 12 of them in the drawer at half a pound each: 6 and a tenth more to buy, one pack.
        $file['needs'][2] = ['quantity' => 18, 'owned' => 12, 'spares' => '10 %'] + $file['needs'][2];

        return $file;
    }

    public function test_by_why_it_is_bought_with_the_drawer_at_its_real_value(): void
    {
        $cost = (new TrueCost((new SampleBuild($this->file()))->build))->toArray();

        self::assertSame(
            [
                'core' => '85.00',
                'safety' => '9.00',
                'quality' => '0.00',
                'convenience' => '0.00',
                'backup' => '0.00',
                'tools' => '12.00',
                'consumables' => '6.00',
                'spares' => '0.00',
            ],
            $cost['classes'],
        );
        self::assertSame(['5.00', '6.00', '7.00'], [$cost['toll'], $cost['drawer'], $cost['faults']]);
        // So far: 45 paid for one rail, 6 drawer, 7 faults. To come: all but that rail, 112 − 40, and 5 to bring it.
        self::assertSame(['135.00', '58.00', '77.00'], [$cost['whole'], $cost['so_far'], $cost['to_come']]);
    }

    public function test_a_part_that_is_there_for_two_reasons_is_shared_by_its_pieces(): void
    {
        $file = $this->file();
        $file['needs'][0]['quantity'] = 3;
        $file['needs'][] = ['ref' => 'spare-axis', 'quantity' => 2, 'purpose' => 'backup'] + $file['needs'][0];
        $file['needs'][] = ['ref' => 'guard', 'quantity' => 1, 'purpose' => 'safety'] + $file['needs'][0];
        $classes = (new TrueCost((new SampleBuild($file))->build))->toArray()['classes'];

        // Rails at 40: three of six for the machine, beside 5 for the nuts; two kept, one for safety beside 9.
        self::assertSame(['125.00', '49.00', '80.00'], [$classes['core'], $classes['safety'], $classes['backup']]);
    }

    public function test_what_is_kept_back_is_to_come_and_spares_stand_apart(): void
    {
        $file =
            ['build' => ['name' => 'R', 'kind' => 'r', 'currency' => 'GBP', 'contingency' => '10 %']] + $this->file();
        $file['needs'][0] = ['quantity' => 10, 'spares' => '20 %'] + $file['needs'][0];
        $cost = (new TrueCost((new SampleBuild($file))->build))->toArray();

        // Ten rails at 40 and two more of them; 5, 9, 12 and 6 beside. To come: all but the one that is here, and 5; a tenth of it.
        self::assertSame(['405.00', '80.00'], [$cost['classes']['core'], $cost['classes']['spares']]);
        self::assertSame('524.70', $cost['to_come']);
        self::assertSame(['51.70', '582.70'], [$cost['contingency'], $cost['whole']]);
    }

    public function test_the_drawer_is_worth_the_cheapest_offer_and_what_has_none_is_named(): void
    {
        $file = $this->file();
        $file['needs'][1]['owned'] = 3;
        $file['needs'][4]['owned'] = 1;
        $file['offers'][] = ['ref' => 'dear', 'price' => '30'] + $file['offers'][1];
        $file['offers'][] = ['ref' => 'cheap', 'price' => '16', 'pack' => 2] + $file['offers'][1];
        unset($file['offers'][4]);
        $cost = (new TrueCost(
            (new SampleBuild(['offers' => array_values($file['offers'])] + $file))->build,
        ))->toArray();

        // One stop of the three is wanted, 8 in a pack of two; twelve nuts are 6.
        self::assertSame(['14.00', ['tap']], [$cost['drawer'], $cost['drawer_unpriced']]);
    }

    /** What was paid is not taken from the plan: what is still to be bought is worked out from what there is. */
    public function test_what_is_cheaper_abandoned_or_on_credit_does_not_vanish(): void
    {
        $of = function (array ...$purchases): array {
            $file =
                [
                    'purchases' => array_map(
                        static fn (array $p, int $i): array => $p + [
                            'ref' => "b{$i}",
                            'part' => 'rail',
                            'supplier' => 'shop',
                            'date' => '2026-11-02',
                        ],
                        $purchases,
                        array_keys($purchases),
                    ),
                ] + $this->file();
            $build = (new SampleBuild($file))->build;
            $cost = (new TrueCost($build))->toArray();
            $money = (new MoneyLedger($build))->toArray();

            return [
                $cost['to_come'],
                $money['paid'],
                $money['owed'],
                $money['here'],
                $money['coming'],
                $money['abandoned'],
            ];
        };
        // Nothing bought: 112 and 5.
        self::assertSame(['117.00', '0.00', '0.00', '0.00', '0.00', '0.00'], $of());
        // Both rails for 30 instead of 80: the 32 of the rest and 5, not 117 − 30.
        self::assertSame(['37.00', '30.00', '0.00', '0.00', '30.00', '0.00'], $of(['pieces' => 2, 'paid' => '30']));
        // 20 paid for rails that are given up: all is still to be bought, and the 20 are gone.
        self::assertSame(
            ['117.00', '20.00', '0.00', '0.00', '0.00', '20.00'],
            $of(['pieces' => 2, 'paid' => '20', 'state' => 'abandoned']),
        );
        // Ordered for 80, 10 paid, one of two here: 70 are owed beside the 37.
        self::assertSame(
            ['107.00', '10.00', '70.00', '40.00', '40.00', '0.00'],
            $of(['pieces' => 2, 'paid' => '10', 'agreed' => '80', 'received' => 1]),
        );
        // What is only considered is neither owed nor on its way.
        self::assertSame(
            ['117.00', '0.00', '0.00', '0.00', '0.00', '0.00'],
            $of(['pieces' => 2, 'paid' => '0', 'agreed' => '80', 'state' => 'considered']),
        );
        // One of two sent back is to be bought again.
        self::assertSame(
            ['77.00', '80.00', '0.00', '40.00', '0.00', '0.00'],
            $of(['pieces' => 2, 'paid' => '80', 'received' => 2, 'accepted' => 1, 'returned' => 1]),
        );
    }

    public function test_the_next_better_route_sets_the_limit(): void
    {
        $cost = (new TrueCost((new SampleBuild($this->file()))->build))->toArray();
        self::assertSame(
            ['Built', '305.00', true],
            [$cost['limit']['route'] ?? '', $cost['limit']['costs'] ?? '', $cost['limit']['worth_it'] ?? null],
        );

        $cheap = array_replace_recursive($this->file(), ['routes' => [['lines' => [['price' => '60']]]]]);
        $cost = (new TrueCost((new SampleBuild($cheap))->build))->toArray();
        self::assertFalse($cost['limit']['worth_it'] ?? true, '65 at the door beats 72 to come, whatever is spent.');

        $even = array_replace_recursive($this->file(), ['routes' => [['lines' => [['price' => '72']]]]]);
        $cost = (new TrueCost((new SampleBuild($even))->build))->toArray();
        self::assertTrue(
            $cost['limit']['worth_it'] ?? false,
            '77 at the door for 77 to come: what is begun is finished.',
        );

        $unknown = $this->file();
        unset($unknown['routes'][0]['lines'][0]['price']);
        self::assertNull(
            (new TrueCost((new SampleBuild($unknown))->build))->toArray()['limit'],
            'A route without its price sets no limit.',
        );
    }
}
