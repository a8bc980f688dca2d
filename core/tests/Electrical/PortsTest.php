<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Electrical\Channel;
use Magpie\Core\Electrical\ChannelMatching;
use Magpie\Core\Electrical\ChannelWish;
use Magpie\Core\Electrical\NamedAlike;
use Magpie\Core\Electrical\PortAllocation;
use Magpie\Core\Electrical\Rules\Ports;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

final class PortsTest extends TestCase
{
    /**
     * @param  list<string>  $uses
     */
    private static function wish(string $ref, array $uses, string $together = '', ?string $volts = null): ChannelWish
    {
        $window =
            $volts === null
                ? null
                : [Quantity::of((float) $volts * 0.6, 'V'), Quantity::of((float) $volts * 1.15, 'V')];

        return new ChannelWish(
            $ref,
            $ref,
            $uses,
            $together === '' ? $ref : $together,
            $window,
            rated: $volts === null ? null : Quantity::of($volts, 'V'),
        );
    }

    /**
     * The most that can be served, by trying every wish on every channel and on none: the reference the matching is
     * held to.
     *
     * @param  list<ChannelWish>  $wishes
     * @param  list<Channel>  $channels
     * @param  array<string, ChannelWish>  $on
     */
    private static function most(array $wishes, array $channels, array $on = [], int $at = 0): int
    {
        if ($at === count($wishes)) {
            return count($on);
        }
        $best = self::most($wishes, $channels, $on, $at + 1);
        foreach ($channels as $channel) {
            $wish = $wishes[$at];
            $volts = $channel->voltage;
            $fits =
                in_array($channel->use, $wish->uses, true) &&
                $channel->free() &&
                ! isset($on[$channel->ref()]) &&
                ($channel->bank !== null || $wish->stands($volts));
            foreach ($fits ? $on : [] as $ref => $placed) {
                $other = array_values(array_filter($channels, static fn (Channel $c): bool => $c->ref() === $ref))[0];
                $fits =
                    $fits &&
                    ($other->pin === null || $other->pin !== $channel->pin || $placed->together === $wish->together);
            }
            if ($fits && $channel->bank !== null) {
                $behind = [$wish];
                foreach ($on as $ref => $placed) {
                    $other = array_values(
                        array_filter($channels, static fn (Channel $c): bool => $c->ref() === $ref),
                    )[0];
                    $other->bank === $channel->bank && ($behind[] = $placed);
                }
                $fits = self::oneLevel($behind);
            }
            if ($fits) {
                $best = max($best, self::most($wishes, $channels, $on + [$channel->ref() => $wish], $at + 1));
            }
        }

        return $best;
    }

    /**
     * @param  list<ChannelWish>  $wishes
     */
    private static function oneLevel(array $wishes): bool
    {
        foreach ([5, 12, 24] as $level) {
            if (
                array_filter($wishes, static fn (ChannelWish $w): bool => ! $w->stands(Quantity::of($level, 'V'))) === []
            ) {
                return true;
            }
        }

        return false;
    }

    /**
     * @return iterable<string, array{int}>
     */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 60; $seed++) {
            yield "small board {$seed}" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_the_matching_serves_as_many_as_trying_everything_does(int $seed): void
    {
        $die = new Randomizer(new Mt19937($seed));
        $pick = static fn (array $from): mixed => $from[$die->getInt(0, count($from) - 1)];
        $channels = $wishes = [];
        for ($i = 0, $n = $die->getInt(2, 6); $i < $n; $i++) {
            $bank = $pick([null, null, 'A']);
            $channels[] = new Channel(
                'b',
                "c{$i}",
                $pick(['fan', 'switch']),
                $bank === null ? $pick([null, Quantity::of(12, 'V'), Quantity::of(24, 'V')]) : null,
                $bank,
                $pick([null, null, 'P1']),
                reserved: $die->getInt(0, 9) === 0,
            );
        }
        for ($i = 0, $n = $die->getInt(1, 5); $i < $n; $i++) {
            $fan = $die->getInt(0, 2) > 0;
            $wishes[] = self::wish(
                "w{$i}",
                $fan ? ['fan'] : ['switch'],
                $pick(['', 'part fans']),
                $fan ? $pick(['12', '24', '5']) : null,
            );
        }
        $matching = new ChannelMatching($wishes, $channels);

        self::assertTrue($matching->exact);
        self::assertCount(self::most($wishes, $channels), $matching->found, "seed {$seed}");
        self::assertServed($wishes, $channels, $matching);
        if (
            count($matching->found) < count($wishes) &&
            ! array_filter($channels, static fn (Channel $c): bool => $c->bank !== null || $c->pin !== null)
        ) {
            // Hall: fewer channels than wishes, and no smaller set of wishes is short.
            self::assertGreaterThan(count($matching->contested), count($matching->blocked));
        }
    }

    /**
     * @param  list<ChannelWish>  $wishes
     * @param  list<Channel>  $channels
     */
    private static function assertServed(array $wishes, array $channels, ChannelMatching $matching): void
    {
        $named = NamedAlike::of($wishes, $channels, $matching->found);
        self::assertSame([], array_diff_key($matching->found, $named), 'Nobody loses a channel.');
        self::assertCount(count($matching->found), array_unique($named), 'No channel serves two.');
        $by = array_column(array_map(static fn (Channel $c): array => [$c->ref(), $c], $channels), 1, 0);
        $pins = [];
        foreach ($wishes as $wish) {
            $channel = $by[$named[$wish->ref()] ?? ''] ?? null;
            if ($channel !== null) {
                $volts = $channel->bank === null ? $channel->voltage : $matching->banks["b/{$channel->bank}"] ?? null;
                self::assertContains($channel->use, $wish->uses);
                self::assertTrue($channel->free() && $wish->stands($volts), "{$wish->ref()} on {$channel->ref()}");
                $pins[$channel->pin ?? $channel->ref()][$wish->together] = true;
            }
        }
        self::assertSame([], array_filter($pins, static fn (array $jobs): bool => count($jobs) > 1));
    }

    /**
     * @return iterable<string, array{list<array{string, list<string>, 2?: string}>, list<Channel>, array<string, string>}>
     *     wishes with where they are wired, channels, who hangs where
     */
    public static function namedAlike(): iterable
    {
        $in = static fn (string ...$names): array => array_map(
            static fn (string $n): Channel => new Channel('b', $n, 'switch'),
            array_values($names),
        );
        $ends = [['switch-z', ['switch']], ['switch-x', ['switch']]];
        yield 'each at the input of its name' => [
            $ends,
            $in('in-x', 'in-z'),
            ['switch-z' => 'b.in-z', 'switch-x' => 'b.in-x'],
        ];
        yield 'a spare one of its name' => [
            $ends,
            $in('in-1', 'in-2', 'in-x'),
            ['switch-z' => 'b.in-1', 'switch-x' => 'b.in-x'],
        ];
        yield 'in the order of their numbers, where no name tells' => [
            $ends,
            $in('in10', 'in9'),
            ['switch-z' => 'b.in9', 'switch-x' => 'b.in10'],
        ];
        yield 'one that is wired stays' => [
            [['switch-z', ['switch'], 'b.in-x'], ['switch-x', ['switch']]],
            $in('in-x', 'in-z'),
            ['switch-z' => 'b.in-x', 'switch-x' => 'b.in-z'],
        ];
        yield 'never on one that is kept back' => [
            [['switch-z', ['switch']]],
            [...$in('in-1'), new Channel('b', 'in-z', 'switch', reserved: true)],
            ['switch-z' => 'b.in-1'],
        ];
        yield 'never on one only counted, never on another board' => [
            [['switch-z', ['switch']]],
            [...$in('in-1'), new Channel('b', 'switch z', 'switch', stated: false), new Channel('c', 'in-z', 'switch')],
            ['switch-z' => 'b.in-1'],
        ];
        yield 'a number is no name' => [[['switch 5', ['switch']]], $in('in 1', 'in 5'), ['switch 5' => 'b.in 1']];
        yield 'on the kind it would rather have, once that is left' => [
            [['light', ['light', 'fan']], ['fan-hot', ['fan']]],
            [new Channel('b', 'fan-hot', 'fan'), new Channel('b', 'lamp', 'light')],
            ['light' => 'b.lamp', 'fan-hot' => 'b.fan-hot'],
        ];
    }

    /**
     * @param  list<array{string, list<string>, 2?: string}>  $wishes
     * @param  list<Channel>  $channels
     * @param  array<string, string>  $named
     */
    #[DataProvider('namedAlike')]
    public function test_of_those_that_are_as_good_each_takes_the_channel_named_like_it(
        array $wishes,
        array $channels,
        array $named,
    ): void {
        $wishes = array_map(
            static fn (array $w): ChannelWish => new ChannelWish($w[0], $w[0], $w[1], $w[0], wired: $w[2] ?? null),
            $wishes,
        );
        $found = NamedAlike::of($wishes, $channels, (new ChannelMatching($wishes, $channels))->found);
        ksort($found);
        ksort($named);
        self::assertSame($named, $found);
    }

    public function test_a_wish_moves_up_to_what_it_would_rather_have(): void
    {
        $wishes = [new ChannelWish('light', 'light', ['light', 'fan'], 'light')];
        $lamp = new Channel('b', 'lamp', 'light', Quantity::of(24, 'V'));
        $fan = new Channel('b', 'fan', 'fan');
        self::assertSame(['light' => 'b.lamp'], NamedAlike::of($wishes, [$fan, $lamp], ['light' => 'b.fan']));
        self::assertSame(['light' => 'b.lamp'], NamedAlike::of($wishes, [$fan, $lamp], ['light' => 'b.lamp']));
        foreach (
            [
                'of a voltage it does not stand' => [self::wish('light', ['light', 'fan'], '', '12'), $lamp],
                'of another board' => [$wishes[0], new Channel('c', 'lamp', 'light')],
                'behind a selector' => [$wishes[0], new Channel('b', 'lamp', 'light', bank: 'A')],
            ] as $why => [$wish, $other]
        ) {
            self::assertSame(['light' => 'b.fan'], NamedAlike::of([$wish], [$fan, $other], ['light' => 'b.fan']), $why);
        }
        // Two on one pin switch together: what hangs on one bars the other.
        $hot = new Channel('b', 'fan-hot', 'fan', pin: 'P2');
        $part = new Channel('b', 'fan-part', 'fan', pin: 'P2');
        $free = new Channel('b', 'fan-free', 'fan');
        self::assertSame(
            ['part' => 'b.fan-free', 'hot' => 'b.fan-hot'],
            NamedAlike::of(
                [self::wish('part', ['fan']), self::wish('hot', ['fan'])],
                [$hot, $part, $free],
                [
                    'part' => 'b.fan-free',
                    'hot' => 'b.fan-hot',
                ],
            ),
        );
    }

    public function test_four_fans_behind_one_selector_cannot_mix_voltages(): void
    {
        $channels = array_map(static fn (int $i): Channel => new Channel('b', "fan{$i}", 'fan', bank: 'fans'), [
            0,
            1,
            2,
            3,
        ]);
        $mixed = new ChannelMatching(
            [
                self::wish('a', ['fan'], '', '12'),
                self::wish('b', ['fan'], '', '24'),
                self::wish('c', ['fan'], '', '24'),
            ],
            $channels,
        );

        self::assertCount(2, $mixed->found, 'Two at 24 V; the one at 12 V would burn.');
        self::assertSame(24.0, $mixed->banks['b/fans']?->in('V'));
        self::assertSame([['a'], []], [$mixed->blocked, $mixed->contested]);
    }

    public function test_two_on_one_pin_must_switch_together(): void
    {
        $channels = [new Channel('b', 'fan0', 'fan', pin: 'P2'), new Channel('b', 'fan1', 'fan', pin: 'P2')];

        self::assertCount(
            1,
            (new ChannelMatching([self::wish('hot', ['fan']), self::wish('part', ['fan'])], $channels))->found,
        );
        self::assertCount(
            2,
            (new ChannelMatching(
                [self::wish('l', ['fan'], 'part fans'), self::wish('r', ['fan'], 'part fans')],
                $channels,
            ))->found,
        );
    }

    public function test_the_smallest_set_in_the_way_is_named_and_what_cures_it(): void
    {
        $finding = (new SampleBuild(Ports::board(2)))->finding('E12/board');

        self::assertSame(Verdict::Fails, $finding->verdict);
        self::assertStringContainsString('drv-x, drv-y, drv-z share 2 channels: 1 get none.', $finding->headline);
        self::assertStringContainsString('expansion board', $finding->headline);
    }

    public function test_a_channel_that_is_only_promised_does_not_count(): void
    {
        [$part, $need] = Examples::part('board', 'controller_board', []);
        $port = static fn (string $name, array $more): array => [
            'name' => $name,
            'kind' => 'signal',
            'specs' => Examples::sheet($more + ['use' => 'motor']),
        ];
        $with = static fn (array $second): array => Examples::file([
            [['ports' => [$port('m0', []), $port('m1', $second)]] + $part, $need],
            Examples::part('a', 'motor_driver', []),
            Examples::part('b', 'motor_driver', []),
        ]);

        self::assertSame(Verdict::Holds, (new SampleBuild($with([])))->finding('E12/board')->verdict);
        self::assertSame(
            Verdict::Fails,
            (new SampleBuild($with(['support' => 'promised'])))->finding('E12/board')->verdict,
        );
        self::assertSame(Verdict::Fails, (new SampleBuild($with(['reserved' => true])))->finding('E12/board')->verdict);
    }

    public function test_a_lead_pins_its_load_and_the_cure_says_when_moving_it_would_do(): void
    {
        [$part, $need] = Examples::part('board', 'controller_board', []);
        $port = static fn (string $name, string $use): array => [
            'name' => $name,
            'kind' => 'signal',
            'specs' => Examples::sheet(['use' => $use]),
        ];
        $file = Examples::file(
            [
                [['ports' => [$port('s0', 'switch'), $port('p0', 'probe')]] + $part, $need],
                Examples::part('probe', 'probe', ['output' => 'sinking']),
                Examples::part('stop', 'limit_switch', []),
            ],
            [
                'leads' => [['ref' => 'W1', 'from' => 'probe.signal', 'to' => 'board.s0']],
            ],
        );
        $allocation = new PortAllocation(new Survey((new SampleBuild($file))->build));

        self::assertSame(['probe' => 'board.s0'], $allocation->found);
        self::assertSame('Everything fits when leads are moved to other channels.', $allocation->cures()[0]);
    }

    public function test_another_board_comes_with_the_table_of_where_everything_goes(): void
    {
        $port = static fn (string $name, string $use): array => [
            'name' => $name,
            'kind' => 'signal',
            'specs' => Examples::sheet(['use' => $use]),
        ];
        [$old, $need] = Examples::part('board', 'controller_board', []);
        [$new] = Examples::part('larger', 'controller_board', []);
        $file = Examples::file(
            [
                [
                    ['ports' => [$port('x-min', 'switch'), $port('y-min', 'switch')]] + $old,
                    ['candidates' => ['board', 'larger']] + $need,
                ],
                Examples::part('sx', 'limit_switch', []),
                Examples::part('sy', 'limit_switch', []),
            ],
            [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'sx.signal', 'to' => 'board.x-min'],
                    ['ref' => 'W2', 'from' => 'sy.signal', 'to' => 'board.y-min'],
                ],
            ],
        );
        $file['parts'][] = ['ports' => [$port('in1', 'switch')]] + $new;

        $moves = PortAllocation::transfer(new Survey((new SampleBuild($file))->build), 'board', 'larger');
        self::assertSame(['board.x-min', 'board.y-min'], array_column($moves, 'before'));
        self::assertSame(
            [1, 1],
            [
                count(array_keys(array_column($moves, 'after'), 'board.in1', true)),
                count(array_keys(array_column($moves, 'after'), null, true)),
            ],
        );
    }
}
