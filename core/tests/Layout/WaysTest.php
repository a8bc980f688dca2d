<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Layout;

use LogicException;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Layout\AsDrawn;
use Magpie\Core\Layout\Box;
use Magpie\Core\Layout\Router;
use Magpie\Core\Layout\Segment;
use Magpie\Core\Layout\Views\Picture;
use Magpie\Core\Layout\Way;
use Magpie\Core\Layout\Ways;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Placing\Place;
use PHPUnit\Framework\TestCase;
use SplPriorityQueue;

/** The ways of leads: the router against a grid search, and what a length comes from. */
final class WaysTest extends TestCase
{
    private const STEP = 20;

    private const CELLS = 9;

    /** 60 nets of channels on a grid of 20 mm: Dijkstra over all of its points finds no cheaper way. */
    public function test_no_way_on_a_grid_is_cheaper(): void
    {
        mt_srand(4);
        $through = 0;
        for ($case = 0; $case < 60; $case++) {
            $segments = [];
            for ($i = 0; $i < 9; $i++) {
                $along = mt_rand(0, 2);
                $low = [self::some(), self::some(), self::some()];
                $high = $low;
                $high[$along] = max($low[$along], self::some());
                $low[$along] = min($low[$along], $high[$along]);
                if ($high[$along] > $low[$along]) {
                    // A channel of no width, so that its middle lies on the grid.
                    $segments["d{$i}"] = Segment::through(new Box($low, $high));
                }
            }
            $from = [self::some(), self::some(), self::some()];
            $to = [self::some(), self::some(), self::some()];
            $run = (new Router($segments, Ways::OUTSIDE))->route($from, $to);
            $cost = $run->outside * Ways::OUTSIDE + array_sum($run->inside);
            self::assertEqualsWithDelta(self::cheapest($segments, $from, $to), $cost, 1e-6, "case {$case}");
            $through += $run->inside === [] ? 0 : 1;
            self::assertSame([$from, $to], [$run->points[0], $run->points[count($run->points) - 1]]);
        }
        self::assertGreaterThan(15, $through);
    }

    private static function some(): float
    {
        return (float) (mt_rand(0, self::CELLS) * self::STEP);
    }

    /**
     * @param  array<string, Segment>  $segments
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     */
    private static function cheapest(array $segments, array $from, array $to): float
    {
        $index = static fn (array $p): int => (int) round(
            $p[0] / self::STEP + ($p[1] / self::STEP) * 100 + ($p[2] / self::STEP) * 10_000,
        );
        $on = [];
        foreach ($segments as $key => $segment) {
            $at = $segment->from;
            for (; $at[$segment->along] <= $segment->to + 1e-9; $at[$segment->along] += self::STEP) {
                $on[$index($at)][$key] = true;
            }
        }
        $cost = [$index($from) => 0.0];
        $queue = new SplPriorityQueue;
        $queue->insert($from, 0.0);
        $done = [];
        while (! $queue->isEmpty()) {
            /** @var array{float, float, float} $at */
            $at = $queue->extract();
            $here = $index($at);
            if ($here === $index($to)) {
                return $cost[$here];
            }
            if (isset($done[$here])) {
                continue;
            }
            $done[$here] = true;
            foreach ([0, 1, 2] as $d) {
                foreach ([-self::STEP, self::STEP] as $step) {
                    $next = $at;
                    $next[$d] += $step;
                    if ($next[$d] < 0 || $next[$d] > self::CELLS * self::STEP) {
                        continue;
                    }
                    $there = $index($next);
                    $within = array_intersect_key($on[$here] ?? [], $on[$there] ?? []) !== [];
                    $new = $cost[$here] + self::STEP * ($within ? 1.0 : Ways::OUTSIDE);
                    if ($new < ($cost[$there] ?? INF)) {
                        $cost[$there] = $new;
                        $queue->insert($next, -$new);
                    }
                }
            }
        }

        return INF;
    }

    /**
     * @param  list<array<string, mixed>>  $more
     * @param  array<string, mixed>  $with
     */
    private static function machine(array $more = [], array $with = [], ?string $length = null): Build
    {
        $part = static fn (string $ref, string $family): array => Examples::part($ref, $family, [
            'body_length' => '100 mm',
            'body_width' => '100 mm',
            'body_height' => '50 mm',
        ]);

        return Machines::build(
            [
                ['need' => 'psu', 'name' => null, 'evidence' => $with['guess'] ?? null] +
                Machines::box('psu', [0, 0, 0], [100, 100, 50]),
                ['need' => 'fan', 'name' => null, 'moves' => $with['moves'] ?? []] +
                Machines::box('fan', [600, 0, 0], [100, 100, 50]),
                ...$more,
            ],
            array_diff_key($with, ['moves' => 0, 'parts' => 0, 'guess' => 0]) + [
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'fan.power'] +
                    ($length === null ? [] : ['length' => $length]),
                ],
            ],
            [$part('psu', 'power_supply'), $part('fan', 'fan'), ...$with['parts'] ?? []],
        );
    }

    private static function way(Build $build): Way
    {
        return Ways::of(Machines::survey($build))->all['W1'];
    }

    public function test_a_length_is_the_way_with_slack_and_ends_and_stands_in_where_nobody_typed_one(): void
    {
        $build = self::machine();
        $way = self::way($build);
        self::assertEqualsWithDelta(500, $way->bare(), 1e-9);
        // 500 and 5 % and 150: 675, cut to 680.
        self::assertEqualsWithDelta(675, $way->length(), 1e-9);
        $drawn = (new AsDrawn)->of($build)->leads['W1'];
        self::assertSame(['0.68 m', true], [$drawn->length?->text(), $drawn->isDrawn]);
        $typed = (new AsDrawn)->of(self::machine(length: '2 m'))->leads['W1'];
        self::assertSame(['2 m', false], [$typed->length?->text(), $typed->isDrawn]);
        $verdict = static fn (string $length): ?string => Machines::verdict(self::machine(length: $length), 'E28/W1');
        self::assertSame(
            ['fails', 'tight', 'tight', 'holds'],
            [$verdict('0.49 m'), $verdict('0.5 m'), $verdict('0.67 m'), $verdict('0.7 m')],
        );
        self::assertNull(Machines::verdict($build, 'E28/W1'));
        // Where an end has no place, nothing is made up.
        $half = $build->with(['places' => ['psu' => $build->places['psu']]]);
        self::assertNull((new AsDrawn)->of($half)->leads['W1']->length);
    }

    /** A length rests on what its way was worked from, and a lead that bends is judged as one, whatever nobody said of it. */
    public function test_what_is_drawn_is_as_good_as_its_places_and_moves_where_they_do(): void
    {
        $drawn = static fn (Build $b): Lead => (new AsDrawn)->of($b)->leads['W1'];
        self::assertSame(
            [Evidence::Manual, false],
            [$drawn(self::machine())->lengthRests, $drawn(self::machine())->moves],
        );
        $guessed = self::machine([], ['guess' => 'assumed']);
        self::assertSame(Evidence::Assumed, $drawn($guessed)->lengthRests);
        self::assertSame(Evidence::Measured, $drawn(self::machine([], ['guess' => 'assumed'], '2 m'))->lengthRests);
        $moving = self::machine([], ['moves' => ['x']]);
        self::assertTrue($drawn($moving)->isFlexing());
        self::assertSame('unproven', Machines::verdict($moving, 'E19/W1'));
        self::assertNull(Machines::verdict(self::machine(), 'E19/W1'));
    }

    public function test_it_keeps_what_it_worked_and_notices_when_a_place_a_size_or_a_travel_changes(): void
    {
        $drawer = new AsDrawn;
        $length = static fn (Build $b): ?string => $drawer->of($b)->leads['W1']->length?->text();
        $build = self::machine();
        self::assertSame('0.68 m', $length($build));
        self::assertSame('0.68 m', $length($build->with(['offers' => []])));
        $part = $build->parts['psu'];
        $longer = $build->with([
            'parts' => [
                'psu' => $part->reading(
                    $part->specs['body_length']->at(
                        $part->specs['body_length']->nominal()?->times(3) ?? throw new LogicException,
                    ),
                ),
            ] + $build->parts,
            'places' => array_map(
                static fn ($p) => new Place(...['size' => [null, null, null]] + get_object_vars($p)),
                $build->places,
            ),
        ]);
        // The supply is 300 long now, so that 300 are left to the fan.
        self::assertSame('0.47 m', $length($longer));
        self::assertSame('0.68 m', $length($build));
    }

    public function test_a_channel_is_gone_through_where_it_is_not_far_round_and_kept_from_what_may_not_lie_in_it(): void
    {
        $duct = static fn (string $for, float $y): array => Machines::box(
            'duct',
            [0, $y, 0],
            [700, 20, 20],
            ['duct' => $for],
        );
        $near = self::way(self::machine([$duct('any', 110)]));
        self::assertSame(['duct'], $near->ducts);
        self::assertGreaterThan(400, $near->inDuct['duct']);
        self::assertSame([], self::way(self::machine([$duct('any', 2000)]))->ducts);
        self::assertSame([], self::way(self::machine([$duct('mains', 110)]))->ducts);
        self::assertSame(['duct'], self::way(self::machine([$duct('signal', 110)]))->ducts);
    }

    /** 300 mm of X, a bend of 28 mm: 150 + 88 mm of chain are wanted; with no chain a loop of half the travel is left. */
    public function test_what_moves_goes_through_a_chain_or_wants_a_loop(): void
    {
        $loose = self::way(self::machine([], ['moves' => ['x']]));
        self::assertSame(['x'], $loose->loose);
        self::assertContains(['what' => 'loop for X', 'mm' => 150.0], $loose->parts);
        // What stands in the room of that loop somewhere in the travel is named; what stands beside it is not.
        $post = static fn (int $y): Build => self::machine(
            [Machines::box('Post', [350, $y, 0], [20, 20, 300])],
            ['moves' => ['x']],
        );
        $passed = static fn (Build $build): array => array_column(
            (new Picture(Machines::survey($build)))->toArray()['ways'],
            'passes',
            'lead',
        )['W1'];
        self::assertSame([['Post'], []], [$passed($post(40)), $passed($post(400))]);
        $chain = static fn (array $specs): Build => self::machine(
            [
                ['need' => 'chain', 'name' => null, 'spans' => ['x']] +
                Machines::box('chain', [300, 150, 0], [200, 20, 40]),
            ],
            ['moves' => ['x'], 'parts' => [Examples::part('chain', 'cable_chain', $specs)]],
        );
        $way = self::way($chain(['length' => '400 mm', 'bend_radius' => '28 mm']));
        self::assertSame([['chain'], []], [$way->chains, $way->loose]);
        $through = (new AsDrawn)->of($chain(['length' => '400 mm', 'bend_radius' => '28 mm']))->leads['W1'];
        self::assertTrue($through->liesIn('chain') && $through->isFlexing());
        self::assertNotNull(
            Machines::verdict($chain(['length' => '400 mm', 'bend_radius' => '28 mm']), 'E19-chain/chain'),
        );
        self::assertSame(400.0, array_column($way->parts, 'mm', 'what')['through chain']);
        $wanted = self::way($chain(['bend_radius' => '28 mm']));
        self::assertEqualsWithDelta(150 + M_PI * 28, array_column($wanted->parts, 'mm', 'what')['through chain'], 1e-9);
        self::assertNotNull(self::way($chain([]))->waits);
        $long = static fn (string $length): ?string => Machines::verdict(
            $chain(['length' => $length, 'bend_radius' => '28 mm']),
            'E19-length/chain',
        );
        self::assertSame(['fails', 'tight', 'holds'], [$long('230 mm'), $long('240 mm'), $long('260 mm')]);
        self::assertSame('unproven', Machines::verdict($chain(['length' => '400 mm']), 'E19-length/chain'));
        // Both carried by the same axis: nothing moves against the other.
        $both = Machines::build(
            [
                ['need' => 'psu', 'name' => null, 'moves' => ['x']] + Machines::box('psu', [0, 0, 0], [100, 100, 50]),
                ['need' => 'fan', 'name' => null, 'moves' => ['x']] + Machines::box('fan', [200, 0, 0], [40, 40, 20]),
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'fan.power']]],
            [Examples::part('psu', 'power_supply', []), Examples::part('fan', 'fan', [])],
        );
        self::assertSame([[], []], [self::way($both)->loose, self::way($both)->chains]);
        self::assertEqualsWithDelta(100, self::way($both)->bare(), 1e-9);
    }
}
