<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use DateTimeImmutable;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Planning\Evening;
use PHPUnit\Framework\TestCase;

/** What fits into an evening. */
final class EveningTest extends TestCase
{
    /**
     * @param  list<array<string, mixed>>  $steps
     * @param  array<string, mixed>  $with
     */
    private static function evening(float $hours, array $steps, array $with = []): Evening
    {
        return new Evening(
            BuildFile::build(
                $with + [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                    'steps' => array_map(
                        static fn (array $step, int $i): array => $step + [
                            'position' => $i,
                            'section' => 'S',
                            'title' => "Step {$step['ref']}",
                        ],
                        $steps,
                        array_keys($steps),
                    ),
                ],
            ),
            $hours,
            new DateTimeImmutable('2026-03-02'),
        );
    }

    /**
     * @return list<string>
     */
    private static function refs(Evening $evening): array
    {
        return array_column($evening->toArray()['steps'], 'ref');
    }

    public function test_steps_that_fit_are_taken_in_their_order_and_none_is_cut(): void
    {
        $steps = [
            ['ref' => 'a', 'guide' => '50 min'],
            ['ref' => 'b', 'guide' => '2 h'],
            ['ref' => 'c', 'guide' => '60 min'],
        ];

        self::assertSame(['a', 'c'], self::refs(self::evening(2.0, $steps)), 'Two hours do not fit into what is left.');
        self::assertSame(['a', 'b', 'c'], self::refs(self::evening(4.0, $steps)));
        self::assertSame([], self::refs(self::evening(0.5, $steps)));
        self::assertSame(0.17, self::evening(2.0, $steps)->toArray()['left']);
    }

    public function test_what_comes_first_comes_the_same_evening_and_what_cannot_be_begun_is_named(): void
    {
        $steps = [
            ['ref' => 'a', 'guide' => '1 h'],
            ['ref' => 'b', 'guide' => '30 min', 'after' => ['a']],
            ['ref' => 'c', 'guide' => '5 h'],
            ['ref' => 'd', 'guide' => '10 min', 'after' => ['c']],
        ];
        $evening = self::evening(2.0, $steps);

        self::assertSame(['a', 'b'], self::refs($evening));
        self::assertSame([['ref' => 'd', 'title' => 'Step d', 'why' => '“Step c” comes first']], $evening->blocked);
    }

    public function test_it_goes_at_ones_own_pace_and_what_was_worked_counts(): void
    {
        $build = ['build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP', 'pace' => '200 %']];
        $steps = [['ref' => 'a', 'guide' => '1 h']];

        self::assertSame([], self::refs(self::evening(1.9, $steps, $build)), 'Twice the guide.');
        self::assertSame(['a'], self::refs(self::evening(2.0, $steps, $build)));
        $steps[0]['timings'] = [['start' => 0, 'stop' => 3600]];
        self::assertSame(['a'], self::refs(self::evening(1.0, $steps, $build)), 'An hour of it is done.');
    }

    public function test_a_step_without_a_time_says_so_and_a_danger_says_how_to_leave_it(): void
    {
        $fault = [
            'faults' => [
                ['ref' => 'x', 'what' => 'w', 'severity' => 'danger', 'state' => 'open', 'found' => '2026-03-01'],
            ],
        ];
        $evening = self::evening(2.0, [['ref' => 'a', 'tools' => ['key'], 'cautions' => ['mains']]], $fault)->toArray();

        self::assertTrue($evening['steps'][0]['assumed']);
        self::assertSame(
            [60, ['key'], ['mains']],
            [$evening['steps'][0]['minutes'], $evening['tools'], $evening['cautions']],
        );
        self::assertContains('Not to be powered: a danger is open.', $evening['leave']);
    }
}
