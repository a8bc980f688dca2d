<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Routes;

use Magpie\Core\Machine\Build;
use Magpie\Core\Routes\RouteComparison;
use Magpie\Core\Routes\RouteLedger;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Routes of a few lines without a supplier, so that each sum can be followed: what is said of them, and what of it moves. */
final class RouteWordsTest extends TestCase
{
    /**
     * @param  list<array<string, mixed>>  $routes
     * @param  array<string, mixed>  $change
     */
    private static function build(array $routes, array $change = []): Build
    {
        foreach ($routes as $i => $route) {
            $routes[$i] = $route + ['name' => strtoupper((string) $route['ref']), 'kind' => 'kit'];
        }

        return (new SampleBuild($change + ['brief' => ['hour' => '10'], 'routes' => $routes]))->build;
    }

    /** @return array<string, mixed> */
    private static function line(string $what, string $price, string $kind = 'box', string $evidence = 'manual'): array
    {
        return ['what' => $what, 'kind' => $kind, 'pieces' => 1, 'price' => $price, 'evidence' => $evidence];
    }

    /**
     * @param  list<array<string, mixed>>  $more
     * @return array<string, mixed>
     */
    private static function route(
        string $ref,
        string $box,
        ?string $hours,
        array $more = [],
        ?string $resale = null,
    ): array {
        return ['ref' => $ref, 'lines' => [self::line("Box {$ref}", $box), ...$more]] +
            ($hours === null ? [] : ['hours' => ['mechanics' => $hours]]) +
            ($resale === null ? [] : ['resale' => $resale]);
    }

    /**
     * @return iterable<string, array{list<array<string, mixed>>, string}>
     */
    public static function sentences(): iterable
    {
        yield 'one alone' => [
            [self::route('a', '100', '1 h')],
            'A is the only route described: GBP 100.00 at the door.',
        ];
        yield 'dearer by less than a tenth' => [
            [self::route('a', '100', '1 h'), self::route('b', '104.26', '1 h')],
            'B costs 4.3 % more than A (GBP 104.26 against GBP 100.00 at the door).',
        ];
        yield 'dearer by a tenth' => [
            [self::route('a', '100', '1 h'), self::route('b', '110.26', '1 h')],
            'B costs 10 % more than A (GBP 110.26 against GBP 100.00 at the door).',
        ];
        yield 'cheaper at the door, dearer in hours: level where 10 h cost 50' => [
            [self::route('a', '100', '1 h'), self::route('b', '50', '11 h')],
            'B costs 50 % less than A at the door (GBP 50.00 against GBP 100.00), but not once your hours and what can be sold are counted; both come level when an hour of yours is worth GBP 5.00.',
        ];
        yield 'the same at the door to half a thousandth' => [
            [self::route('a', '10000', '1 h'), self::route('b', '10004', '2 h')],
            'B and A cost the same at the door (GBP 10000.00).',
        ];
        yield 'a little more than that' => [
            [self::route('a', '10000', '1 h'), self::route('b', '10005', '2 h')],
            'B costs 0.1 % more than A (GBP 10005.00 against GBP 10000.00 at the door).',
        ];
        yield 'nothing to take a share of' => [
            [self::route('a', '0', '1 h'), self::route('b', '40', '1 h')],
            'B costs GBP 40.00, A GBP 0.00.',
        ];
        yield 'level with what is owned, dearest first, no box and no more than it takes' => [
            [
                self::route('a', '100', '1 h'),
                self::route('b', '100', '1 h', [
                    self::line('Tap', '4', 'tool'),
                    self::line('Vice', '30', 'tool'),
                    self::line('Saw', '20', 'tool'),
                ]),
            ],
            'B costs 54 % more than A (GBP 154.00 against GBP 100.00 at the door); it breaks even if you already own Vice, Saw and Tap.',
        ];
        yield 'two of three do' => [
            [
                self::route('a', '110', '1 h'),
                self::route('b', '100', '1 h', [
                    self::line('Tap', '4', 'tool'),
                    self::line('Vice', '30', 'tool'),
                    self::line('Saw', '20', 'left out'),
                ]),
            ],
            'B costs 40 % more than A (GBP 154.00 against GBP 110.00 at the door); it breaks even if you already own Vice and Saw.',
        ];
        yield 'what is owned, or an hour' => [
            [self::route('a', '100', '2 h'), self::route('b', '100', '1 h', [self::line('Vice', '30', 'tool')])],
            'B costs 30 % more than A (GBP 130.00 against GBP 100.00 at the door); it breaks even if you already own Vice, or both come level when an hour of yours is worth GBP 30.00.',
        ];
        yield 'five things to own are no advice' => [
            [
                self::route('a', '100', '1 h'),
                self::route(
                    'b',
                    '100',
                    '1 h',
                    array_map(static fn (string $n): array => self::line("Tool {$n}", '10', 'tool'), [
                        '1',
                        '2',
                        '3',
                        '4',
                        '5',
                    ]),
                ),
            ],
            'B costs 50 % more than A (GBP 150.00 against GBP 100.00 at the door).',
        ];
        yield 'four are' => [
            [
                self::route('a', '100', '1 h'),
                self::route(
                    'b',
                    '100',
                    '1 h',
                    array_map(static fn (string $n): array => self::line("Tool {$n}", '10', 'tool'), [
                        '1',
                        '2',
                        '3',
                        '4',
                    ]),
                ),
            ],
            'B costs 40 % more than A (GBP 140.00 against GBP 100.00 at the door); it breaks even if you already own Tool 1, Tool 2, Tool 3 and Tool 4.',
        ];
        yield 'all that could be owned is not enough' => [
            [self::route('a', '100', '1 h'), self::route('b', '120', '1 h', [self::line('Tap', '4', 'tool')])],
            'B costs 24 % more than A (GBP 124.00 against GBP 100.00 at the door).',
        ];
        yield 'hours that hardly differ bring nothing level' => [
            [self::route('a', '100', '1 h'), self::route('b', '99.9', '1.04 h')],
            'B costs 0.1 % less than A at the door (GBP 99.90 against GBP 100.00), but not once your hours and what can be sold are counted.',
        ];
        yield 'what can be sold is counted before the hour: 20 left for 4 h' => [
            [self::route('a', '100', '1 h', [], '10'), self::route('b', '70', '5 h')],
            'B costs 30 % less than A at the door (GBP 70.00 against GBP 100.00), but not once your hours and what can be sold are counted; both come level when an hour of yours is worth GBP 5.00.',
        ];
        yield 'one figure is missing' => [
            [self::route('a', '100', '1 h'), self::route('b', '150', null)],
            'B costs 50 % more than A (GBP 150.00 against GBP 100.00 at the door); both come level when an hour of yours is worth GBP 50.00. One figure is not known yet.',
        ];
        yield 'two are' => [
            [self::route('a', '100', null), self::route('b', '150', null)],
            'B costs 50 % more than A (GBP 150.00 against GBP 100.00 at the door). 2 figures are not known yet.',
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $routes
     */
    #[DataProvider('sentences')]
    public function test_what_decides_in_words(array $routes, string $says): void
    {
        self::assertSame($says, str_replace("\u{a0}", ' ', (new RouteComparison(self::build($routes)))->sentence()));
    }

    public function test_what_can_be_sold_is_taken_off_and_hours_are_valued_at_the_builders_pace(): void
    {
        $route = self::route('a', '100', '4 h', [], '15');
        $route['hours'] += ['printing' => '20 h', 'wiring' => '2 h'];
        $route['filament'] = '2.01 kg';
        $of = static fn (string $pace, array $brief = ['hour' => '10']): array => (new RouteLedger(
            ($build = self::build(
                [$route],
                [
                    'brief' => $brief,
                    'build' => ['name' => 'R', 'kind' => 'r', 'currency' => 'GBP', 'pace' => $pace],
                ],
            )),
            $build->routes['a'],
        ))->toArray();
        $pick = static fn (array $of): array => [
            $of['landed'],
            $of['own_hours'],
            $of['machine_hours'],
            $of['hours_value'],
            $of['all_in'],
            $of['reels'],
            $of['resale'],
        ];

        self::assertSame(['100.00', 6.0, 20.0, '60.00', '145.00', 3, '15.00'], $pick($of('100 %')));
        self::assertSame(['100.00', 9.0, 20.0, '90.00', '175.00', 3, '15.00'], $pick($of('150 %')));
        self::assertSame(['100.00', 6.0, 20.0, null, '85.00', 3, '15.00'], $pick($of('100 %', [])));
    }

    public function test_lines_come_dearest_first_and_what_rests_on_little_is_told(): void
    {
        $build = self::build([
            [
                'ref' => 'a',
                'wait_days' => 7,
                'lines' => [
                    self::line('Tap', '10', 'tool', 'manual'),
                    ['what' => 'Belt', 'kind' => 'spare', 'pieces' => 2],
                    self::line('Box', '60', 'box', 'listing'),
                    self::line('Oil', '5', 'consumable', 'assumed'),
                    self::line('Rail', '25', 'left out', 'datasheet'),
                ],
            ],
        ]);
        $ledger = new RouteLedger($build, $build->routes['a']);

        self::assertSame(['Box', 'Rail', 'Tap', 'Oil', 'Belt'], array_column($ledger->lines, 'what'));
        self::assertSame(0.65, $ledger->weakShare(), '60 of a listing and 5 assumed, of 100; a manual is not weak.');
        self::assertSame(['Belt has no price', 'hours of A'], $ledger->open);
        self::assertSame(
            [
                'parts' => '0.00',
                'box' => '60.00',
                'left out' => '25.00',
                'tool' => '10.00',
                'consumable' => '5.00',
                'spare' => '0.00',
            ],
            $ledger->toArray()['kinds'],
        );
        self::assertSame([7, '10.00'], [$ledger->waitDays, $ledger->toolCost()->amount()]);
    }

    public function test_what_is_not_known_of_a_supplier_is_named_once_and_it_delays_nobody(): void
    {
        $line = ['supplier' => 'near'] + self::line('Box', '60');
        $build = self::build(
            [['ref' => 'a', 'hours' => ['wiring' => '1 h'], 'lines' => [$line, ['what' => 'Lid'] + $line]]],
            ['suppliers' => [['ref' => 'near', 'name' => 'Near', 'currency' => 'GBP']]],
        );
        $ledger = new RouteLedger($build, $build->routes['a']);

        self::assertSame([['shipping from Near is not known'], null], [$ledger->open, $ledger->waitDays]);
        self::assertSame(
            ['120.00', '120.00', '0.00'],
            [$ledger->baskets[0]['goods'], $ledger->landed->amount(), $ledger->toll->amount()],
        );
    }

    public function test_each_assumption_moves_what_it_should(): void
    {
        $build = self::build([
            self::route('a', '100', '4 h', [self::line('Tap', '6', 'tool'), self::line('Bit', '3', 'spare')]),
            self::route('b', '200', '1 h', [self::line('Lamp', '12', 'left out')], '50'),
        ]);
        $movers = (new RouteComparison($build))->toArray()['movers'];

        // A: 109 and 40; B: 212 less 50, and 10. The gap is 23.
        self::assertSame(
            [
                ['Worth of an hour', '53.00', '-7.00', true],
                ['What is left over', '73.00', '23.00', false],
                ['Price of the box', '13.00', '33.00', false],
                ['Your hours', '30.50', '15.50', false],
                ['What the box leaves out', '11.00', '23.00', false],
                ['Tools', '29.00', '23.00', false],
                ['Spares', '26.00', '23.00', false],
            ],
            array_map(static fn (array $m): array => [$m['what'], $m['low'], $m['high'], $m['flips']], $movers),
        );
        self::assertSame(['cannot be sold', 'sells as hoped'], [$movers[1]['low_says'], $movers[1]['high_says']]);

        $plain = (new RouteComparison(
            self::build([self::route('b', '101', '1 h'), self::route('a', '100', '1 h')], ['brief' => []]),
        ))->toArray();
        self::assertSame(
            [['Price of the box', '0.90', '1.10']],
            array_map(static fn (array $m): array => [$m['what'], $m['low'], $m['high']], $plain['movers']),
            'What moves nothing is left out.',
        );
        self::assertSame(
            [[null, 'A'], [0.01, 'A']],
            array_map(static fn (array $r): array => [$r['against'], $r['base']], $plain['routes']),
        );
    }

    public function test_the_wage_is_against_the_fewest_hours_and_may_be_a_loss(): void
    {
        $routes = (new RouteComparison(
            self::build([
                self::route('ready', '300', '1 h'),
                self::route('kit', '200', '11 h'),
                self::route('own', '330', '31 h'),
                self::route('same', '290', '1.04 h'),
            ]),
        ))->toArray()['routes'];

        self::assertSame(
            ['same' => null, 'kit' => ['READY', '10.00', 10.0], 'ready' => null, 'own' => ['READY', '-1.00', 30.0]],
            array_map(
                static fn (?array $w): ?array => $w === null ? null : array_values($w),
                array_column($routes, 'wage', 'ref'),
            ),
        );
    }
}
