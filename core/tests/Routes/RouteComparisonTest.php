<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Routes;

use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Routes\RouteComparison;
use Magpie\Core\Routes\RouteLedger;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** Routes worked by hand, to the cent: two currencies, shipping steps, duty and tax above thresholds, a fee, packs. */
final class RouteComparisonTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $change
     */
    private function build(array $change = []): Build
    {
        $file = Examples::file([
            Examples::part('motor', 'stepper_motor', []),
            Examples::part('screw', 'screw', []),
            Examples::part('crimper', 'tool', []),
        ]);
        $file['needs'][0]['quantity'] = 3;
        $file['needs'][1] = ['quantity' => 13, 'spares' => '10 %'] + $file['needs'][1];
        $file['needs'][2]['owned'] = 1;

        return (new SampleBuild(
            $change +
                $file + [
                    'build' => ['name' => 'R', 'kind' => 'r', 'currency' => 'GBP', 'pace' => '150 %'],
                    'brief' => ['hour' => '8'],
                    'suppliers' => [
                        [
                            'ref' => 'home',
                            'name' => 'Home',
                            'currency' => 'GBP',
                            'tax' => '20 %',
                            'lead_days' => 4,
                            'shipping' => [['from' => '0', 'cost' => '5'], ['from' => '100', 'cost' => '0']],
                        ],
                        [
                            'ref' => 'abroad',
                            'name' => 'Abroad',
                            'currency' => 'EUR',
                            'tax' => '20 %',
                            'lead_days' => 20,
                            'shipping' => [['from' => '0', 'cost' => '12'], ['from' => '150', 'cost' => '0']],
                            'duty' => '3 %',
                            'duty_free' => '135',
                            'fee' => '1.5 %',
                        ],
                    ],
                    'offers' => [
                        [
                            'ref' => 'm',
                            'part' => 'motor',
                            'supplier' => 'abroad',
                            'price' => '40',
                            'date' => '2026-11-01',
                        ],
                        [
                            'ref' => 's',
                            'part' => 'screw',
                            'supplier' => 'home',
                            'price' => '6',
                            'pack' => 10,
                            'date' => '2026-11-01',
                        ],
                    ],
                    'rates' => [['from' => 'EUR', 'to' => 'GBP', 'worth' => '0.80', 'date' => '2026-11-01']],
                    'routes' => [
                        [
                            'ref' => 'kit',
                            'name' => 'The kit',
                            'kind' => 'kit',
                            'hours' => ['mechanics' => '6 h', 'wiring' => '4 h', 'printing' => '9 h'],
                            'filament' => '1.2 kg',
                            'lines' => [
                                [
                                    'what' => 'Kit',
                                    'kind' => 'box',
                                    'pieces' => 1,
                                    'price' => '500',
                                    'supplier' => 'abroad',
                                    'evidence' => 'listing',
                                ],
                                [
                                    'what' => 'Couplings',
                                    'kind' => 'left out',
                                    'pieces' => 13,
                                    'price' => '8',
                                    'pack' => 10,
                                    'supplier' => 'home',
                                    'evidence' => 'manual',
                                ],
                                [
                                    'what' => 'Crimper',
                                    'kind' => 'tool',
                                    'pieces' => 1,
                                    'price' => '24',
                                    'supplier' => 'home',
                                    'evidence' => 'manual',
                                ],
                            ],
                        ],
                        [
                            'ref' => 'own',
                            'name' => 'Own parts',
                            'kind' => 'self-sourced',
                            'whole_build' => true,
                            'hours' => ['mechanics' => '30 h'],
                            'wait_days' => 9,
                        ],
                    ],
                ],
        ))->build;
    }

    public function test_a_kit_from_abroad_lands_with_duty_tax_and_fee(): void
    {
        $kit = new RouteLedger($this->build(), $this->build()->routes['kit']);

        // Abroad: 500 + no shipping above 150 + 3 % duty 15 + 20 % of 515 tax 103 = 618, and 1.5 % fee 9.27: 627.27
        // EUR.
        self::assertSame(
            ['500.00', '0.00', '15.00', '103.00', '9.27', '627.27', '501.82'],
            array_map(static fn (string $k) => $kit->baskets[0][$k], [
                'goods',
                'shipping',
                'duty',
                'tax',
                'fee',
                'total',
                'landed',
            ]),
        );
        // Home: 13 couplings in packs of 10 are 2 packs, 16; crimper 24; shipping 5; 20 % of 45: 54.00.
        self::assertSame(
            ['40.00', '5.00', '0.00', '9.00', '0.00', '54.00'],
            array_map(static fn (string $k) => $kit->baskets[1][$k], [
                'goods',
                'shipping',
                'duty',
                'tax',
                'fee',
                'total',
            ]),
        );
        self::assertSame('555.82', $kit->landed->amount());
        self::assertSame('115.82', $kit->toll->amount());
        self::assertSame(
            ['400.00', '16.00', '24.00'],
            [$kit->kinds['box']->amount(), $kit->kinds['left out']->amount(), $kit->kinds['tool']->amount()],
        );
        // 10 h of own work at 150 %; printing is the machine's. 15 h at 8.
        self::assertSame(
            [15.0, 9.0, '675.82', 20, 2],
            [
                $kit->ownHours->in('h'),
                $kit->machineHours->in('h'),
                $kit->allIn->amount(),
                $kit->waitDays,
                $kit->toArray()['reels'],
            ],
        );
        self::assertSame(0.9091, $kit->weakShare(), '400 of 440 rest on a listing.');
    }

    public function test_the_builds_own_needs_are_bought_as_it_plans_them(): void
    {
        $own = new RouteLedger($this->build(), $this->build()->routes['own']);

        // 3 motors 120 EUR: below 135 no duty; 12 shipping; tax 26.40; fee 1.5 % of 158.40: 160.776 EUR, 128.62 GBP.
        // 13 screws and 10 % are 15: 2 packs, 12; shipping 5, tax 3.40: 20.40. The crimper is owned.
        self::assertSame('149.02', $own->landed->amount());
        self::assertSame('0.00', $own->kinds['tool']->amount());
        self::assertSame([], $own->open);
        self::assertSame('509.02', $own->allIn->amount(), '30 h at 150 % and 8 an hour on top.');
        self::assertSame(20, $own->waitDays, 'The slower of its suppliers and its own wait.');
    }

    public function test_what_decides_is_said_with_the_base_of_its_percentage(): void
    {
        $routes = (new RouteComparison($this->build()))->toArray();

        self::assertSame(['own', 'kit'], array_column($routes['routes'], 'ref'));
        self::assertSame([null, 2.7298], array_column($routes['routes'], 'against'));
        self::assertStringContainsString('The kit costs 273 % more than Own parts', $routes['sentence']);
        // 406.80 more for 30 h less: level at 13.56 an hour, which is also what the building earns.
        self::assertSame(['166.80', [], '13.56'], array_values($routes['level'] ?? []));
        self::assertSame(['against' => 'The kit', 'amount' => '13.56', 'hours' => 30.0], $routes['routes'][0]['wage']);
        self::assertNull($routes['routes'][1]['wage']);
    }

    public function test_a_gap_small_enough_is_closed_by_what_is_owned_already(): void
    {
        $build = $this->build(['brief' => ['hour' => '13.50']]);
        $routes = (new RouteComparison($build))->toArray();

        self::assertLessThan(24, (float) ($routes['level']['gap'] ?? 99));
        self::assertStringContainsString('if you already own', $routes['sentence']);
    }

    public function test_every_mover_is_a_recomputed_gap_and_the_widest_comes_first(): void
    {
        $movers = (new RouteComparison($this->build()))->toArray()['movers'];
        $by = array_column($movers, null, 'what');
        $swings = array_map(static fn (array $m): float => abs((float) $m['high'] - (float) $m['low']), $movers);
        $sorted = $swings;
        rsort($sorted);

        self::assertSame($sorted, $swings);
        // With an hour worth nothing the gap is the money alone, the other way round; at double it is 406.80 − 480.
        self::assertSame(
            ['406.80', '-73.20', true],
            [$by['Worth of an hour']['low'], $by['Worth of an hour']['high'], $by['Worth of an hour']['flips']],
        );
        // The crimper owned: home goods 16, 5 shipping, 4.20 tax: 25.20 for 54.00.
        self::assertSame('138.00', $by['Tools']['low']);
        // EUR 10 % up: 627.27 × 0.08 more for the kit, 160.776 × 0.08 more for the parts.
        self::assertSame('204.11', $by['Rate of EUR']['high']);
    }

    public function test_what_has_no_price_is_named_and_not_free(): void
    {
        $build = $this->build(['offers' => [], 'rates' => []]);
        $own = new RouteLedger($build, $build->routes['own']);
        $kit = new RouteLedger($build, $build->routes['kit']);

        self::assertSame(['motor has no price', 'screw has no price'], $own->open);
        self::assertStringContainsString('no rate to GBP', $kit->open[0]);
        self::assertStringContainsString('figures are not known yet', (new RouteComparison($build))->sentence());
    }

    public function test_without_routes_there_is_nothing_to_say(): void
    {
        $none = (new RouteComparison((new SampleBuild([]))->build))->toArray();

        self::assertSame(
            [[], 'No route is described yet.', null, []],
            [$none['routes'], $none['sentence'], $none['level'], $none['movers']],
        );
    }
}
