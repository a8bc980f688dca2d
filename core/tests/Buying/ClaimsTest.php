<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Buying;

use Magpie\Core\Buying\Arrivals;
use Magpie\Core\Buying\Claims;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use PHPUnit\Framework\TestCase;

/** What was found on arrival is kept, flags its lot, and becomes a claim. */
final class ClaimsTest extends TestCase
{
    /**
     * @param  array<string, mixed>  ...$purchases  eight bearings for 24.00 each time, unless it says otherwise
     */
    private static function build(array ...$purchases): Build
    {
        $bearing = Examples::part('bearing', 'bearing', []);
        $bearing[0]['specs'] = [
            'outer_diameter' => [
                'value' => '32 mm',
                'evidence' => 'measured',
                'rivals' => [['value' => '30 mm', 'evidence' => 'listing']],
            ],
        ];

        return BuildFile::build(
            Examples::file(
                [$bearing],
                [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'Sample', 'kind' => 'sample', 'currency' => 'GBP'],
                    'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'EUR']],
                    'purchases' => array_map(
                        static fn (array $one, int $i): array => $one + [
                            'ref' => "p{$i}",
                            'part' => 'bearing',
                            'supplier' => 'shop',
                            'pieces' => 8,
                            'paid' => '24.00',
                            'date' => '2026-03-01',
                            'received' => 8,
                            'order' => 'A 17',
                        ],
                        $purchases,
                        array_keys($purchases),
                    ),
                ],
            ),
        );
    }

    /**
     * @return array<string, mixed>
     */
    private static function look(string $what, bool $good, string $date, ?int $pieces = null): array
    {
        return array_filter([
            'what' => $what,
            'result' => $good ? 'pass' : 'fail',
            'date' => $date,
            'pieces' => $pieces,
            'notes' => $good ? null : 'It grates.',
        ]);
    }

    public function test_what_is_good_and_not_yet_here_is_no_claim(): void
    {
        self::assertSame([], (new Claims(self::build([])))->toArray());
        self::assertSame([], (new Claims(self::build(['received' => 0])))->toArray(), 'It is on its way.');
        self::assertSame(
            [],
            (new Claims(
                self::build(['looks' => [self::look('turns without grating', true, '2026-03-09')]]),
            ))->toArray(),
        );
    }

    public function test_a_short_delivery_is_claimed_by_its_share_worked_by_hand(): void
    {
        [$claim] = (new Claims(self::build(['received' => 5, 'claim_by' => '2026-03-20'])))->toArray();

        // Three of eight that cost 24.00 in all.
        self::assertSame(
            ['9.00', 'EUR', 3, '2026-03-20'],
            [$claim['amount'], $claim['currency'], $claim['lines'][0]['short'], $claim['claim_by']],
        );
        self::assertStringContainsString('8 ordered, 5 came, 3 missing.', $claim['text']);
        self::assertStringContainsString("or return EUR\u{a0}9.00", $claim['text']);
    }

    public function test_bad_pieces_are_claimed_with_what_was_found_and_read(): void
    {
        [$claim] = (new Claims(
            self::build([
                'looks' => [
                    self::look('turns without grating', false, '2026-03-09', 2),
                    self::look('carton and labels', true, '2026-03-09'),
                ],
                'lot' => 'L 5',
            ]),
        ))->toArray();

        self::assertSame('6.00', $claim['amount']);
        self::assertSame(['turns without grating'], array_column($claim['lines'][0]['found'], 'what'));
        self::assertStringContainsString('not good on 2: turns without grating. It grates.', $claim['text']);
        self::assertStringContainsString(
            "measured 32\u{a0}mm, by the listing 28.8\u{a0}mm to 31.2\u{a0}mm",
            $claim['text'],
        );
        self::assertStringContainsString('lot L 5', $claim['text']);
    }

    public function test_what_is_settled_is_not_asked_for_again(): void
    {
        $settled = ['received' => 5, 'claim' => 'settled'];
        [$claim] = (new Claims(self::build($settled, ['received' => 7])))->toArray();

        self::assertTrue($claim['open'], 'One line of the order is not.');
        self::assertSame('3.00', $claim['amount']);
        self::assertStringNotContainsString('5 came', $claim['text']);
        self::assertFalse((new Claims(self::build($settled)))->toArray()[0]['open']);
    }

    public function test_the_last_look_counts_and_of_one_day_the_bad_one(): void
    {
        $looked = static function (array ...$looks): ?bool {
            $checks = (new Arrivals(self::build(['looks' => $looks])))->toArray()[0]['checks'];

            return array_column($checks, 'looked', 'what')['turns without grating']['good'] ?? null;
        };
        $what = 'turns without grating';

        self::assertNull($looked());
        self::assertTrue($looked(self::look($what, false, '2026-03-09'), self::look($what, true, '2026-03-10')));
        self::assertFalse($looked(self::look($what, false, '2026-03-09'), self::look($what, true, '2026-03-09')));
        self::assertFalse($looked(self::look($what, true, '2026-03-10'), self::look($what, false, '2026-03-10')));
    }

    public function test_one_bad_piece_flags_the_others_of_its_lot_and_no_other(): void
    {
        $bad = ['lot' => 'L 5', 'looks' => [self::look('turns without grating', false, '2026-03-09', 1)]];
        $lots = (new Arrivals(self::build($bad, ['lot' => 'L 5'], ['lot' => 'L 6'])))->toArray()[0]['lots'];

        self::assertSame([['lot' => 'L 5', 'bad' => 1, 'others' => 15]], $lots);
    }

    public function test_more_cannot_be_looked_at_or_go_away_than_came(): void
    {
        $at = static function (array $purchase): string {
            try {
                self::build($purchase);
            } catch (CannotReadBuildFile $e) {
                return $e->pointer;
            }

            return '';
        };

        self::assertSame('/purchases/0/looks/0/pieces', $at(['looks' => [self::look('x', false, '2026-03-09', 9)]]));
        self::assertSame('/purchases/0/moved', $at(['returned' => 3, 'moved' => 6]));
        self::assertSame('/purchases/0/sold', $at(['sold' => 9]));
        self::assertSame('/purchases/0/rate', $at(['rate' => '0']));
        self::assertSame('/purchases/0/rate', $at(['rate' => '-1.2']));
        self::assertSame('', $at(['returned' => 2, 'moved' => 3, 'sold' => 3, 'fetched' => '12.00']));
    }
}
