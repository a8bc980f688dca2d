<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Buying;

use Magpie\Core\Buying\LeadGoods;
use Magpie\Core\Buying\Stock;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Money\OrderLine;
use Magpie\Core\Money\ToOrder;
use PHPUnit\Framework\TestCase;

/** Pieces that lie in one build and are wanted in another; and what leads are made of. */
final class StockTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $need
     * @param  array<string, mixed>  $part
     * @param  list<array<string, mixed>>  $purchases
     */
    private static function build(string $name, array $need, array $part = [], array $purchases = []): Build
    {
        [$bearing, $place] = Examples::part('bearing', 'bearing', []);

        return BuildFile::build(
            Examples::file(
                [[$part + ['name' => '608 bearing'] + $bearing, $need + $place]],
                [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => $name, 'kind' => 'sample', 'currency' => 'GBP'],
                    'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP']],
                    'purchases' => array_map(
                        static fn (array $one, int $i): array => $one + [
                            'ref' => "p{$i}",
                            'part' => 'bearing',
                            'supplier' => 'shop',
                            'paid' => '1',
                            'date' => '2026-03-01',
                        ],
                        $purchases,
                        array_keys($purchases),
                    ),
                ],
            ),
        );
    }

    private static function line(Build $build): OrderLine
    {
        return ToOrder::of($build)[0];
    }

    /**
     * @param  list<array{section: string, ref: string, set: list<array{path: list<string>, to: int|null}>}>|null  $changes
     */
    private static function after(Build $build, ?array $changes): Build
    {
        self::assertNotNull($changes);
        $data = BuildFile::data($build);
        foreach ($changes as $change) {
            foreach ($data[$change['section']] as $i => $entry) {
                foreach ($entry['ref'] === $change['ref'] ? $change['set'] : [] as $set) {
                    $data[$change['section']][$i][$set['path'][0]] = $set['to'];
                }
            }
        }

        return BuildFile::build($data);
    }

    public function test_what_is_over_elsewhere_is_offered_where_it_is_wanted(): void
    {
        $here = self::build('Here', ['quantity' => 6, 'owned' => 1]);
        $spare = static fn (Build $other): array => array_column(Stock::spare($here, ['b' => $other]), 'take');

        self::assertSame([3], $spare(self::build('There', ['quantity' => 2, 'owned' => 5])));
        self::assertSame(
            [5],
            $spare(self::build('There', ['quantity' => 2, 'owned' => 50])),
            'No more than is wanted.',
        );
        self::assertSame(
            [3],
            $spare(self::build('There', ['quantity' => 2, 'owned' => 5], ['name' => ' 608 BEARING'])),
        );
        self::assertSame([], $spare(self::build('There', ['quantity' => 2, 'owned' => 5], ['name' => '625 bearing'])));
        self::assertSame([], $spare(self::build('There', ['quantity' => 2, 'owned' => 2])));
        self::assertSame(
            [],
            $spare(self::build('There', ['quantity' => 2], [], [['pieces' => 5]])),
            'It is on its way.',
        );
        self::assertSame([3], $spare(self::build('There', ['quantity' => 2], [], [['pieces' => 5, 'received' => 5]])));
        self::assertSame(
            [],
            $spare(self::build('There', ['quantity' => 2, 'spares' => '200 %', 'owned' => 5])),
            'Spares stay.',
        );
    }

    public function test_no_piece_is_lost_or_doubled_when_it_goes_from_one_build_to_another(): void
    {
        mt_srand(7);
        $moves = 0;
        for ($case = 0; $case < 400; $case++) {
            $some = static fn (): Build => self::build(
                'Any',
                array_filter(['quantity' => mt_rand(1, 6), 'owned' => mt_rand(0, 5)]),
                [],
                array_map(static function (): array {
                    $came = mt_rand(0, 4);

                    return array_filter([
                        'pieces' => mt_rand(max(1, $came), 6),
                        'received' => $came,
                        'returned' => mt_rand(0, $came),
                    ]);
                }, array_fill(0, mt_rand(0, 2), 0)),
            );
            [$here, $there] = [$some(), $some()];
            $count = static fn (Build $b): int => self::line($b)->owned + self::line($b)->here + self::line($b)->coming;
            foreach (Stock::spare($here, ['b' => $there]) as $row) {
                $pieces = mt_rand(1, $row['take']);
                $given = self::after($there, Stock::giving($there, $row['there'], $pieces));
                $taken = self::after($here, Stock::taking($here, $row['part'], $pieces));
                self::assertSame($count($here) + $count($there), $count($given) + $count($taken));
                self::assertSame(self::line($here)->order() - $pieces, self::line($taken)->order());
                self::assertSame(0, self::line($given)->order(), 'It gives nothing it needs itself.');
                $moves++;
            }
        }
        self::assertGreaterThan(50, $moves);
    }

    public function test_more_than_is_over_or_wanted_is_refused(): void
    {
        $there = self::build('There', ['quantity' => 2, 'owned' => 5]);

        self::assertNull(Stock::giving($there, 'bearing', 4));
        self::assertNull(Stock::giving($there, 'bearing', 0));
        self::assertNull(Stock::giving($there, 'none', 1));
        self::assertNull(Stock::taking($there, 'bearing', 1));
        self::assertFalse(Stock::isSame($there->parts['bearing'], null));
    }

    public function test_what_leads_are_made_of_is_listed_until_something_stands_for_it(): void
    {
        $end = ['termination' => 'ferrule'];
        $file = static function (array $more, bool $made = false) use ($end): array {
            $build = BuildFile::build(
                Examples::file(
                    [Examples::part('psu', 'power_supply', []), Examples::part('fan', 'fan', []), ...$more],
                    [
                        'magpie' => BuildFile::VERSION,
                        'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                        'leads' => [
                            [
                                'ref' => 'W1',
                                'from' => 'psu.out',
                                'to' => 'fan.power',
                                'conductor' => ['size' => '0.75 mm²', 'stranding' => 'fine'],
                                'length' => '1000 mm',
                                'ends' => [$end, $end],
                                'made' => $made,
                            ],
                        ],
                    ],
                ),
            );

            return array_column(LeadGoods::missing($build), 'pieces', 'what');
        };
        $named = static fn (string $name, string $family): array => [
            ['name' => $name] + Examples::part('x', $family, [])[0],
            Examples::part('x', $family, [])[1],
        ];

        // Two conductors, an end each side: four ferrules; 1.1 m cut, twice.
        self::assertSame(
            ['Ferrule, 0.75 mm²' => 4, 'Wire, 0.75 mm² fine, 2.2 m' => 1, 'Crimp tool for ferrules' => 1],
            $file([]),
        );
        self::assertSame(
            ['Wire, 0.75 mm² fine, 2.2 m' => 1, 'Crimp tool for ferrules' => 1],
            $file([$named('Ferrules, assorted', 'consumable')]),
        );
        self::assertArrayNotHasKey('Crimp tool for ferrules', $file([$named('Ferrule crimper', 'tool')]));
        self::assertArrayNotHasKey('Wire, 0.75 mm² fine, 2.2 m', $file([$named('Wire set', 'consumable')]));
        self::assertSame([], $file([], true), 'It is made.');
    }
}
