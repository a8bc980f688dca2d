<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Service;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Service\Upkeep;
use PHPUnit\Framework\TestCase;

/** Hours from jobs, what is due by them, what drifts, and like held against like. */
final class UpkeepTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $with
     */
    private static function upkeep(array $with): Upkeep
    {
        return new Upkeep(
            BuildFile::build(
                Examples::file(
                    [Examples::part('belt', 'belt', []), Examples::part('bed', 'heater', [])],
                    $with + [
                        'magpie' => BuildFile::VERSION,
                        'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                        'axes' => [
                            ['ref' => 'x', 'name' => 'X', 'along' => 'x'],
                            ['ref' => 'y', 'name' => 'Y', 'along' => 'y'],
                        ],
                    ],
                ),
            ),
        );
    }

    public function test_hours_are_those_of_what_moved_and_rounds_begin_again(): void
    {
        $jobs = [
            ['ref' => 'J1', 'name' => 'one', 'at' => 1000, 'time' => '30 h', 'heat' => '20 h'],
            ['ref' => 'J2', 'name' => 'two', 'at' => 3000, 'time' => '30 h', 'axes' => ['x']],
        ];
        $upkeep = self::upkeep(['jobs' => $jobs]);
        self::assertSame(
            ['All of it' => 60.0, 'X' => 60.0, 'Y' => 30.0, 'Heaters' => 20.0],
            array_column($upkeep->run(), 'hours', 'what'),
        );
        $due = array_column($upkeep->due(), null, 'key');
        self::assertSame(
            ['joints', 'belts', 'plugs'],
            array_values(array_intersect(['joints', 'belts', 'plugs', 'slats', 'collet'], array_keys($due))),
        );
        // New, joints are due after ten hours and belts after fifty; both are.
        self::assertTrue($due['joints']['due'] && $due['belts']['due']);
        $looked = self::upkeep(['jobs' => $jobs, 'rounds' => [['ref' => 'U1', 'task' => 'belts', 'at' => 2000]]]);
        $belts = array_column($looked->due(), null, 'key')['belts'];
        self::assertSame([30.0, 150.0, false], [$belts['since'], $belts['every'], $belts['due']]);
        $sooner = self::upkeep([
            'jobs' => $jobs,
            'rounds' => [['ref' => 'U1', 'task' => 'belts', 'at' => 2000, 'trouble' => true]],
        ]);
        self::assertSame(75.0, array_column($sooner->due(), 'every', 'key')['belts']);
        self::assertFalse(array_column(self::upkeep([])->due(), 'due', 'key')['joints']);
    }

    public function test_a_drift_beyond_what_the_instruments_can_tell_says_what_wears_and_less_says_nothing(): void
    {
        $read = static fn (string $first, string $last, string $what = 'backlash'): ?string => self::upkeep([
            'readings' => [
                [
                    'ref' => 'R1',
                    'what' => $what,
                    'axis' => 'x',
                    'value' => $first,
                    'at' => 1000,
                    'accuracy' => '0.01 '.substr($first, -2),
                ],
                [
                    'ref' => 'R2',
                    'what' => $what,
                    'axis' => 'x',
                    'value' => $last,
                    'at' => 2000,
                    'accuracy' => '0.01 '.substr($last, -2),
                ],
            ],
        ])->trends()[0]['says'];
        self::assertStringContainsString('wears', (string) $read('0.02 mm', '0.09 mm'));
        self::assertNull($read('0.02 mm', '0.03 mm'));
        self::assertStringContainsString('softer', (string) $read('48.0 Hz', '41.5 Hz', 'resonance'));
        self::assertSame(
            [],
            self::upkeep([
                'readings' => [['ref' => 'R1', 'what' => 'backlash', 'axis' => 'x', 'value' => '1 mm', 'at' => 1]],
            ])->trends(),
        );
    }

    public function test_only_like_is_held_against_like_and_what_was_not_measured_is_not_right(): void
    {
        $piece = static fn (string $ref, array $more): array => $more + [
            'ref' => $ref,
            'piece' => 'Cube',
            'recipe' => '0.2 mm',
            'material' => 'PLA',
            'at' => 1,
        ];
        $feature = ['name' => 'side', 'nominal' => '20 mm', 'tolerance' => '0.1 mm'];
        $groups = self::upkeep([
            'tests' => [
                $piece('T1', ['features' => [['measured' => '20.2 mm'] + $feature]]),
                $piece('T2', ['material' => 'ASA', 'features' => [['measured' => '20.02 mm'] + $feature]]),
                $piece('T3', ['at' => 2, 'features' => [['measured' => '19.91 mm'] + $feature]]),
                $piece('T4', ['at' => 3, 'features' => [$feature]]),
            ],
        ])->pieces();
        self::assertCount(2, $groups);
        self::assertSame(['fails', 'tight', 'unproven'], array_column($groups[0]['made'], 'verdict'));
        self::assertSame(['holds'], array_column($groups[1]['made'], 'verdict'));
    }
}
