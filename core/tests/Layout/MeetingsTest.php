<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Layout;

use Magpie\Core\Layout\Envelope;
use Magpie\Core\Layout\Layout;
use Magpie\Core\Layout\Meetings;
use Magpie\Core\Machine\Build;
use PHPUnit\Framework\TestCase;

/** What meets what over the travel of the axes, against sampling, and what is said of it. */
final class MeetingsTest extends TestCase
{
    /** 300 pairs of boxes, each on some of three axes: every millimetre position a machine could stand at, tried one by one. */
    public function test_it_finds_what_sampling_all_positions_finds(): void
    {
        mt_srand(17);
        $met = 0;
        for ($case = 0; $case < 300; $case++) {
            $places = [];
            foreach (['a', 'b'] as $ref) {
                $low = [mt_rand(0, 60), mt_rand(0, 40), mt_rand(0, 30)];
                $places[] = Machines::box(
                    $ref,
                    $low,
                    [mt_rand(5, 30), mt_rand(5, 30), mt_rand(5, 30)],
                    [
                        'moves' => array_values(
                            array_filter(['x', 'y', 'z'], static fn (): bool => mt_rand(0, 1) === 1),
                        ),
                    ],
                );
            }
            $build = Machines::build($places, [
                'axes' => [Machines::axis('x', 9), Machines::axis('y', 7), Machines::axis('z', 5)],
            ]);
            [$gap, $first] = self::sampled($build);
            $meeting = Meetings::of(Machines::survey($build))->all[0] ?? null;
            // Middles lie on half millimetres at the finest, so steps of one may miss the deepest overlap by half of one.
            self::assertEqualsWithDelta($gap, $meeting->gap ?? $gap, $gap < 0 ? 0.5 : 1e-9, "case {$case}");
            self::assertTrue($meeting !== null || $gap >= Meetings::NEAR);
            self::assertSame($gap < 0, ($meeting->gap ?? 1) < 0);
            if ($gap < 0) {
                $met++;
                foreach ($meeting->where ?? [] as $axis => [$from, $to]) {
                    self::assertTrue(
                        $first[$axis] >= $from - 1e-9 && $first[$axis] <= $to + 1e-9,
                        "case {$case} {$axis}",
                    );
                }
            }
        }
        self::assertGreaterThan(60, $met);
    }

    /**
     * @return array{float, array<string, float>} least of the largest gaps over all positions in steps of 1 mm, and one at which they meet
     */
    private static function sampled(Build $build): array
    {
        $bodies = Layout::of(Machines::survey($build))->bodies;
        $best = INF;
        $first = [];
        for ($x = 0; $x <= 9; $x++) {
            for ($y = 0; $y <= 7; $y++) {
                for ($z = 0; $z <= 5; $z++) {
                    $at = ['x' => (float) $x, 'y' => (float) $y, 'z' => (float) $z];
                    $box = static fn (string $ref): array => [
                        array_map(
                            static fn (int $d, string $axis): float => $bodies[$ref]->box->low[$d] +
                                (in_array($axis, $bodies[$ref]->carried, true) ? $at[$axis] : 0),
                            [0, 1, 2],
                            ['x', 'y', 'z'],
                        ),
                        array_map(
                            static fn (int $d, string $axis): float => $bodies[$ref]->box->high[$d] +
                                (in_array($axis, $bodies[$ref]->carried, true) ? $at[$axis] : 0),
                            [0, 1, 2],
                            ['x', 'y', 'z'],
                        ),
                    ];
                    [[$al, $ah], [$bl, $bh]] = [$box('a'), $box('b')];
                    $gap = -INF;
                    foreach ([0, 1, 2] as $d) {
                        $gap = max($gap, $al[$d] - $bh[$d], $bl[$d] - $ah[$d]);
                    }
                    $best = min($best, $gap);
                    $first = $gap < 0 && $first === [] ? $at : $first;
                }
            }
        }

        return [$best, $first];
    }

    public function test_a_sound_arrangement_holds_and_faults_planted_in_it_are_found(): void
    {
        $places = [
            'bed' => Machines::box('bed', [100, 100, 0], [300, 300, 20]),
            'head' => Machines::box('head', [120, 120, 80], [40, 40, 60], ['moves' => ['x', 'y', 'z']]),
            'post' => Machines::box('post', [500, 100, 0], [40, 40, 400]),
        ];
        $verdict = static fn (array $places): ?string => Machines::verdict(
            Machines::build(array_values($places)),
            'M11-place/layout',
        );
        self::assertSame('holds', $verdict($places));
        // 40 mm to the post at the end of X, and 45 wanted, by whichever of the two.
        $wanting = $places;
        $wanting['head']['free'] = '45 mm';
        self::assertSame('fails', $verdict($wanting));
        $wanting['post']['preference'] = true;
        self::assertSame('tight', $verdict($wanting));
        $wanting = $places;
        $wanting['post']['free'] = '45 mm';
        self::assertSame('fails', $verdict($wanting));
        $wanting['post']['free'] = '40 mm';
        self::assertSame('holds', $verdict($wanting));
        $longer = $places;
        $longer['head']['size']['length'] = '90 mm';
        self::assertSame('fails', $verdict($longer));
        $says = Machines::says(Machines::build(array_values($longer)), 'M11-place/layout');
        self::assertStringContainsString('Head meets post: they overlap by 10 mm', $says);
        self::assertStringContainsString('X from 290 mm to 300 mm', $says);
        $meant = $longer;
        $meant['head']['meets'] = ['post'];
        self::assertSame('holds', $verdict($meant));
        // Carried by the same axis, they never come nearer.
        $together = $longer;
        $together['post']['moves'] = ['x'];
        $together['post']['x'] = ['at' => 'low', 'by' => '300 mm'];
        $together['post']['z'] = ['at' => 'low', 'by' => '30 mm'];
        self::assertSame('holds', $verdict($together));
        // A position or a travel nobody stands for proves nothing, nor does what has no place yet.
        $guessed = $places;
        $guessed['post']['evidence'] = 'assumed';
        self::assertSame('unproven', $verdict($guessed));
        $open = Machines::build(array_values($places), [
            'axes' => [Machines::axis('x', null), Machines::axis('y', 200), Machines::axis('z', 100)],
        ]);
        self::assertSame('unproven', Machines::verdict($open, 'M11-place/layout'));
        unset($guessed['post']['evidence'], $guessed['post']['z']);
        self::assertSame('unproven', $verdict($guessed));
        // Touching is not meeting.
        $two = static fn (float $x): array => [
            Machines::box('a', [0, 0, 0], [10, 10, 10]),
            Machines::box('b', [$x, 0, 0], [10, 10, 10]),
        ];
        self::assertSame(['fails', 'holds'], [$verdict($two(9)), $verdict($two(10))]);
    }

    public function test_what_stands_in_something_must_fit_and_reach_is_free_in_one_position_at_least(): void
    {
        $with = ['zones' => [['ref' => 'bay', 'name' => 'Bay', 'kind' => 'cabinet']]];
        $bay = array_diff_key(Machines::box('bay', [0, 0, 0], [200, 100, 100], ['zone' => 'bay']), ['name' => 0]);
        $in = static fn (float $x): Build => Machines::build(
            [$bay, Machines::box('psu', [$x, 0, 0], [60, 50, 40], ['on' => 'bay'])],
            $with,
        );
        self::assertStringContainsString('Psu sticks out of Bay by 10', Machines::says($in(150), 'M11-place/layout'));
        self::assertSame('holds', Machines::verdict($in(140), 'M11-place/layout'));
        // Against its outside.
        self::assertSame('holds', Machines::verdict($in(200), 'M11-place/layout'));
        $reach = ['reach' => [['side' => 'right', 'depth' => '40 mm', 'for' => 'plug']]];
        $says = static fn (array $other, array $more = []): ?string => Machines::verdict(
            Machines::build([Machines::box('board', [0, 0, 0], [100, 50, 20], $reach + $more), $other]),
            'M11-reach/reach',
        );
        self::assertSame('tight', $says(Machines::box('wall', [120, 0, 0], [5, 50, 50])));
        self::assertSame('holds', $says(Machines::box('wall', [140, 0, 0], [5, 50, 50])));
        // The carriage can be driven away, 300 mm; a thick one stays in the way.
        self::assertSame('holds', $says(Machines::box('carriage', [120, 0, 0], [50, 50, 50], ['moves' => ['x']])));
        self::assertSame('tight', $says(Machines::box('beam', [120, -400, 0], [50, 800, 50], ['moves' => ['y']])));
        self::assertSame(
            'tight',
            $says(Machines::box('carriage', [120, 0, 0], [50, 50, 50], ['moves' => ['x']]), ['moves' => ['x']]),
        );
        self::assertSame('unproven', $says(Machines::box('wall', [140, 0, 0], [5, 50, 50], ['evidence' => 'listing'])));
    }

    public function test_the_outline_holds_all_of_it_with_every_axis_driven_out(): void
    {
        $file = static fn (string $length): Build => Machines::build(
            [Machines::box('head', [50, 50, 50], [100, 50, 50], ['moves' => ['x']])],
            [
                'brief' => [
                    'outline' => [
                        'length' => $length,
                        'width' => '300 mm',
                        'height' => '200 mm',
                        'evidence' => 'measured',
                    ],
                ],
            ],
        );
        self::assertSame('holds', Machines::verdict($file('450 mm'), 'M02-drawn/outline'));
        self::assertStringContainsString(
            'Head reaches 10 mm beyond it at the right',
            Machines::says($file('440 mm'), 'M02-drawn/outline'),
        );
        self::assertSame(
            [50.0, 450.0],
            [
                Envelope::of(Machines::survey($file('440 mm')))->box->low[0],
                Envelope::of(Machines::survey($file('440 mm')))->box->high[0],
            ],
        );
        self::assertSame(
            'unproven',
            Machines::verdict(Machines::build([Machines::box('a', [0, 0, 0], [1, 1, 1])]), 'M02-drawn/outline'),
        );
        self::assertNull(Machines::verdict(Machines::build([]), 'M02-drawn/outline'));
    }
}
