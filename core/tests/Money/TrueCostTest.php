<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Money;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Money\Basket;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Quantity\Money;
use Magpie\Core\Routes\TrueCost;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
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

        $unknown = $this->file();
        unset($unknown['routes'][0]['lines'][0]['price']);
        self::assertNull(
            (new TrueCost((new SampleBuild($unknown))->build))->toArray()['limit'],
            'A route without its price sets no limit.',
        );
    }

    /**
     * @return iterable<string, array{string, array<string, string>, array{string, string, string, string}}>
     */
    public static function baskets(): iterable
    {
        // goods; duty, tax, fee, total, worked by hand with 10 shipping.
        yield 'all of it' => [
            '200',
            ['duty' => '5 %', 'tax' => '20 %', 'fee' => '2 %'],
            ['10.50', '44.10', '5.29', '269.89'],
        ];
        yield 'at the duty threshold' => [
            '200',
            ['duty' => '5 %', 'duty_free' => '200'],
            ['0.00', '0.00', '0.00', '210.00'],
        ];
        yield 'a penny above it' => [
            '200.01',
            ['duty' => '5 %', 'duty_free' => '200'],
            ['10.50', '0.00', '0.00', '220.51'],
        ];
        yield 'below the tax threshold' => [
            '30',
            ['tax' => '20 %', 'tax_free' => '39'],
            ['0.00', '0.00', '0.00', '40.00'],
        ];
        yield 'prices that include it' => ['30', [], ['0.00', '0.00', '0.00', '40.00']];
    }

    /**
     * @param  array<string, string>  $terms
     * @param  array{string, string, string, string}  $wanted
     */
    #[DataProvider('baskets')]
    public function test_a_basket_lands_with_what_the_border_takes(string $goods, array $terms, array $wanted): void
    {
        $supplier = (new SampleBuild([
            'suppliers' => [
                $terms + [
                    'ref' => 's',
                    'name' => 'S',
                    'currency' => 'EUR',
                    'shipping' => [['from' => '0', 'cost' => '10']],
                ],
            ],
        ]))->build->suppliers['s'];
        $basket = new Basket($supplier, Money::of($goods, 'EUR'));

        self::assertSame($wanted, [
            $basket->duty->amount(),
            $basket->tax->amount(),
            $basket->fee->amount(),
            $basket->total->amount(),
        ]);
    }
}
