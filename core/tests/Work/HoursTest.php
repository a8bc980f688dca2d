<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Work;

use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Machine\Work\Timing;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Work\Hours;
use Magpie\Core\Work\Learning;
use PHPUnit\Framework\TestCase;

/** Sittings, pace and what is left of it; what a second build takes beside a first. */
final class HoursTest extends TestCase
{
    private const DAY = 1_700_000_000;

    /**
     * @param  list<array{float, float|null, 2?: string}>  $spells  hours from the beginning of the day: start, stop, by whom
     */
    private static function step(
        string $ref,
        array $spells = [],
        ?float $guide = null,
        StepState $state = StepState::Open,
    ): Step {
        $at = static fn (float $hour): int => self::DAY + (int) round($hour * 3600);

        return new Step(
            $ref,
            0,
            'Frame',
            "Step {$ref}",
            guide: $guide === null ? null : Quantity::of($guide, 'h'),
            state: $state,
            timings: array_map(
                static fn (array $s): Timing => new Timing(
                    $at($s[0]),
                    $s[1] === null ? null : $at($s[1]),
                    $s[2] ?? null,
                ),
                $spells,
            ),
        );
    }

    /**
     * @param  list<Step>  $steps
     */
    private static function hours(array $steps, float $now = 24): Hours
    {
        return new Hours(array_column($steps, null, 'ref'), self::DAY + (int) ($now * 3600));
    }

    public function test_a_short_pause_stays_in_the_sitting_and_a_long_one_ends_it(): void
    {
        $sittings = self::hours([
            self::step('a', [[1, 2], [2.5, 3]]),
            self::step('b', [[3, 4], [5.5, 6]]),
            self::step('c', [[7.51, 8]]),
        ])->sittings();

        self::assertSame(
            [[0.49, 0.0, 1], [3.0, 2.0, 2]],
            array_map(static fn (array $s): array => [$s['worked'], $s['pause'], $s['steps']], $sittings),
            'An hour and a half is still a pause; a moment more is not. The latest comes first.',
        );
    }

    public function test_two_clocks_of_one_person_are_one_hour_and_of_two_persons_two(): void
    {
        $one = self::hours([self::step('a', [[1, 3, 'Isla']]), self::step('b', [[2, 4, 'Isla']])])->toArray();
        self::assertSame(['Isla' => 3.0], $one['people']);
        $two = self::hours([self::step('a', [[1, 3, 'Isla']]), self::step('b', [[2, 4, 'Ravi']])])->toArray()['people'];
        ksort($two);
        self::assertSame(['Isla' => 2.0, 'Ravi' => 2.0], $two);
        self::assertSame(
            ['' => 2.0],
            self::hours([self::step('a', [[1, null]])], 3)->toArray()['people'],
            'A clock that runs counts up to now.',
        );
    }

    public function test_the_pace_of_a_section_is_of_steps_done_with_a_guide_and_a_clock(): void
    {
        $row = self::hours([
            self::step('a', [[1, 4]], 2, StepState::Done),
            self::step('b', [], 2, StepState::Done),
            self::step('c', [[5, 6]], 1),
            self::step('d', [], 0.5),
        ])->toArray()['sections'][0];

        self::assertSame([1.5, 1.5, 4.0, 2], [$row['pace'], $row['left'], $row['worked'], $row['done']]);
    }

    public function test_the_band_is_nought_where_all_took_the_same_and_widens_with_the_spread(): void
    {
        $even = [];
        for ($i = 0; $i < 5; $i++) {
            $even[] = self::step("d{$i}", [[$i, $i + 1.5]], 1, StepState::Done);
        }
        self::assertNull(
            self::hours([...array_slice($even, 1), self::step('z', [], 4)])->band(),
            'Four say too little.',
        );
        self::assertNull(self::hours($even)->band(), 'Nothing is left.');
        self::assertSame(['low' => 6.0, 'high' => 6.0], self::hours([...$even, self::step('z', [], 4)])->band());

        // Own over guide 1, 1, 1, 2, 4: logarithms 0, 0, 0, 0.6931, 1.3863, spread 0.6200. Left in one piece of 4 h at a pace of
        // 1.8: 7.2 h; 1.2816 × 0.6200 × √(1/5 + 1) = 0.8704; e^±0.8704. By hand.
        $uneven = [];
        foreach ([1, 1, 1, 2, 4] as $i => $took) {
            $uneven[] = self::step("d{$i}", [[0, $took]], 1, StepState::Done);
        }
        $band = self::hours([...$uneven, self::step('z', [], 4)])->band();
        self::assertEqualsWithDelta(7.2 * exp(-0.8704), $band['low'] ?? 0, 0.06);
        self::assertEqualsWithDelta(7.2 * exp(0.8704), $band['high'] ?? 0, 0.06);
        // The same left in four pieces: √(1/5 + 1/4).
        $pieces = array_map(static fn (int $i): Step => self::step("z{$i}", [], 1), range(1, 4));
        $narrow = self::hours([...$uneven, ...$pieces])->band();
        self::assertEqualsWithDelta(7.2 * exp(1.2816 * 0.62 * sqrt(0.45)), $narrow['high'] ?? 0, 0.06);
    }

    public function test_a_second_build_beside_a_first_at_the_steps_both_have_done(): void
    {
        $first = [];
        $second = [];
        foreach (['a', 'b', 'c'] as $i => $ref) {
            $first[] = self::step($ref, [[0, 2]], null, StepState::Done);
            $second[] = self::step($ref, [[0, 1.7]], null, StepState::Done);
        }
        $first[] = self::step('only', [[0, 9]], null, StepState::Done);
        $learnt = Learning::between(array_column($first, null, 'ref'), array_column($second, null, 'ref'));

        self::assertSame(3, $learnt->steps);
        self::assertEqualsWithDelta(0.85, $learnt->rate(), 1e-9);
        // At 0.85 the second takes 85 % and the fourth 72 % (handbook W2, after Wright 1936): 0.85² = 0.7225.
        self::assertEqualsWithDelta(0.7225, Learning::curve(1, 0.85, 4), 1e-9);
        self::assertEqualsWithDelta(6 * 0.7729, $learnt->nth(3), 0.001, '3^(log₂ 0.85) = 0.7729');
        self::assertNull(
            Learning::between(array_column(array_slice($first, 0, 2), null, 'ref'), array_column($second, null, 'ref')),
        );
    }
}
