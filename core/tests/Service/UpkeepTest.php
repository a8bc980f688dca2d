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
    private static function upkeep(array $with, ?int $now = null): Upkeep
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
            $now,
        );
    }

    /** After half a year of use, or half a year after the last time. */
    public function test_the_whole_is_looked_at_again_after_months(): void
    {
        $days = 86_400;
        $next = static fn (int $day, array $rounds = [], bool $used = true): array => array_column(
            self::upkeep(
                [
                    'jobs' => $used ? [['ref' => 'J1', 'name' => 'one', 'at' => 100 * $days, 'time' => '1 h']] : [],
                    'rounds' => $rounds,
                ],
                $day * $days,
            )->next(),
            'why',
            'what',
        );
        $review = 'Look at the whole of it again';
        self::assertArrayNotHasKey($review, $next(279));
        self::assertStringStartsWith('180 days since it was first used', $next(280)[$review] ?? '');
        self::assertArrayNotHasKey($review, $next(9999, [], false));
        $done = [['ref' => 'U1', 'task' => 'review', 'at' => 290 * $days]];
        self::assertArrayNotHasKey($review, $next(469, $done));
        self::assertStringContainsString('since the last review', $next(470, $done)[$review] ?? '');
    }

    public function test_what_is_still_to_be_fitted_comes_safety_first(): void
    {
        $need = static fn (string $ref, string $purpose, array $more = []): array => $more + [
            'ref' => $ref,
            'role' => $ref,
            'family' => 'fan',
            'stage' => 'planned',
            'purpose' => $purpose,
        ];
        $file = Examples::file(
            [Examples::part('duct', 'printed_part', []), Examples::part('bed', 'heater', [])],
            [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP', 'stage' => 'powered'],
                'brief' => ['process' => 'printing'],
                'steps' => [
                    [
                        'ref' => 'S1',
                        'section' => 'Light',
                        'title' => 'Fit it',
                        'uses' => ['lamp' => 1],
                        'state' => 'done',
                    ],
                ],
            ],
        );
        $file['needs'][0] = ['stage' => 'planned', 'purpose' => 'quality'] + $file['needs'][0];
        array_push(
            $file['needs'],
            $need('lamp', 'convenience'),
            $need('smoke', 'safety'),
            $need('guard', 'safety', ['stage' => 'bought']),
        );
        $upgrades = (new Upkeep(BuildFile::build($file)))->upgrades();
        self::assertSame(['guard', 'smoke', 'duct', 'lamp'], array_column($upgrades, 'need'));
        self::assertSame([true, false, false, true], array_column($upgrades, 'begun'));
        self::assertSame([false, false, true, false], array_column($upgrades, 'itself'));
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

    /** A job at the very moment of a round counts before it; what is due first stands first. */
    public function test_hours_count_from_a_round_and_the_least_left_comes_first(): void
    {
        $job = static fn (string $time, int $at = 2000): array => ['ref' => "J{$at}", 'name' => 'one', 'at' => $at, 'time' => $time];
        $of = static fn (array $jobs, array $rounds = []): array => array_column(
            self::upkeep(['jobs' => $jobs, 'rounds' => $rounds])->due(),
            null,
            'key',
        );
        self::assertSame([10.0, 0.0, true], array_values(array_intersect_key($of([$job('10 h')])['joints'], ['since' => 1, 'left' => 1, 'due' => 1])));
        self::assertFalse($of([$job('9.96 h')])['joints']['due']);
        $round = ['ref' => 'U1', 'task' => 'joints', 'at' => 2000, 'found' => 'two were loose'];
        $after = $of([$job('30 h'), $job('25 h', 2001)], [$round, ['ref' => 'U2', 'at' => 1000, 'trouble' => true] + $round]);
        self::assertSame([25.0, 75.0, 100.0, 2000, 'two were loose', false], [
            $after['joints']['since'],
            $after['joints']['left'],
            $after['joints']['every'],
            $after['joints']['last'],
            $after['joints']['found'],
            $after['joints']['trouble'],
        ]);
        // Joints are due after 10 hours, belts and plugs after 50.
        self::assertSame(['joints', 'belts', 'plugs'], array_keys($of([$job('40 h')])));
        self::assertSame([-30.0, 10.0, 10.0], array_values(array_column($of([$job('40 h')]), 'left')));
        self::assertNull($of([$job('40 h')])['joints']['last']);
    }

    /** What is looked after is what there is. */
    public function test_a_machine_has_the_tasks_of_its_parts(): void
    {
        $keys = static fn (string ...$families): array => array_column(
            (new Upkeep(BuildFile::build(Examples::file(
                array_map(static fn (string $f): array => Examples::part($f, $f, []), $families),
                ['magpie' => BuildFile::VERSION, 'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP']],
            ))))->due(),
            'key',
        );
        self::assertEqualsCanonicalizing(['joints'], $keys());
        self::assertEqualsCanonicalizing(['joints', 'grub-screws'], $keys('pulley'));
        self::assertEqualsCanonicalizing(['joints', 'grub-screws'], $keys('coupling'));
        self::assertEqualsCanonicalizing(['joints', 'guides'], $keys('linear_rail'));
        self::assertEqualsCanonicalizing(['joints', 'guides'], $keys('drive_screw'));
        self::assertEqualsCanonicalizing(['joints', 'filters'], $keys('fan'));
        self::assertEqualsCanonicalizing(['joints', 'collet'], $keys('spindle'));
        self::assertEqualsCanonicalizing(['joints', 'slats', 'collet'], $keys('arc_source', 'spindle'));
    }

    /** Danger first, then what is due, what drifts and what came of a lot, then other faults, then the review. */
    public function test_what_may_be_done_next_is_in_order(): void
    {
        $fault = static fn (string $ref, string $kind, array $more = []): array => $more + [
            'ref' => $ref,
            'what' => "fault {$ref}",
            'kind' => 'damaged',
            'severity' => $kind,
            'found' => '2026-11-01',
        ];
        $upkeep = self::upkeep([
            'jobs' => [['ref' => 'J1', 'name' => 'one', 'at' => 0, 'time' => '12 h', 'spindle' => '3 h']],
            'faults' => [$fault('F1', 'defect'), $fault('F2', 'danger'), $fault('F3', 'defect', ['state' => 'closed'])],
            'readings' => [
                ['ref' => 'R1', 'what' => 'bond', 'need' => 'bed', 'value' => '0.05 Ω', 'at' => 1000, 'accuracy' => '0.01 Ω'],
                ['ref' => 'R2', 'what' => 'bond', 'need' => 'bed', 'value' => '0.09 Ω', 'at' => 2000, 'accuracy' => '0.01 Ω'],
            ],
        ], 200 * 86_400);
        self::assertSame(
            [
                'fault F2',
                'Tighten moving joints and power terminals',
                'Earth bond of bed',
                'fault F1',
                'Look at the whole of it again',
            ],
            array_column($upkeep->next(), 'what'),
        );
        self::assertSame('12 h since it was done, 10 are usual', $upkeep->next()[1]['why']);
        self::assertSame(3.0, array_column($upkeep->run(), 'hours', 'what')['Spindle or torch']);
        $row = $upkeep->trends()[0];
        self::assertSame([0.05, 0.09, 0.8, 'bed'], [$row['first'], $row['last'], $row['drift'], $row['where']]);
        self::assertSame([[1000.0, 0.05], [2000.0, 0.09]], $row['points']);
        // Struck ones, and those nobody dated, are none.
        $struck = static fn (array $more): array => self::upkeep([
            'readings' => [
                ['ref' => 'R1', 'what' => 'bond', 'need' => 'bed', 'value' => '0.05 Ω', 'at' => 1000],
                $more + ['ref' => 'R2', 'what' => 'bond', 'need' => 'bed', 'value' => '0.09 Ω'],
            ],
        ])->trends();
        self::assertSame([], $struck(['at' => 2000, 'struck' => 'the wrong range']));
        self::assertSame([], $struck([]));
        self::assertCount(1, $struck(['at' => 2000]));
    }

    /** Of a lot of which one failed the others go too; another part in its place does not. */
    public function test_of_a_lot_of_which_one_failed_the_others_are_renewed(): void
    {
        $what = static function (?string $lot, string $of): array {
            $file = Examples::file([Examples::part('fan', 'fan', []), Examples::part('other', 'fan', [])], [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                'faults' => [
                    array_filter(['ref' => 'F1', 'what' => 'it seized', 'kind' => 'damaged', 'severity' => 'defect', 'found' => '2026-11-01', 'need' => 'fan', 'lot' => $lot, 'state' => 'closed']),
                ],
            ]);
            $twin = ['ref' => 'twin', 'role' => 'Twin', 'candidates' => [$of], 'choice' => $of] + $file['needs'][0];

            return array_column((new Upkeep(BuildFile::build(['needs' => [...$file['needs'], $twin]] + $file)))->next(), 'why', 'what');
        };
        $fan = Examples::part('fan', 'fan', [])[0]['ref'];
        self::assertSame(['Renew Twin too' => 'fan of lot L7 failed: it seized'], $what('L7', $fan));
        self::assertSame([], $what(null, $fan));
        self::assertSame([], $what('L7', Examples::part('other', 'fan', [])[0]['ref']));
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

    /** A bed of 10 Ω has 10.6 Ω at 15 K more; a thermistor halves between a cold shop and a warm one. */
    public function test_what_the_air_alone_does_is_no_wear(): void
    {
        $says = static fn (string $what, string $first, string $last): ?string => self::upkeep([
            'readings' => [
                ['ref' => 'R1', 'what' => $what, 'need' => 'bed', 'value' => $first, 'at' => 1000, 'accuracy' => '0.01 Ω'],
                ['ref' => 'R2', 'what' => $what, 'need' => 'bed', 'value' => $last, 'at' => 2000, 'accuracy' => '0.01 Ω'],
            ],
        ])->trends()[0]['says'];
        self::assertNull($says('cold_resistance', '10 Ω', '10.6 Ω'));
        self::assertNull($says('cold_resistance', '10.6 Ω', '10 Ω'));
        self::assertStringContainsString('ages', (string) $says('cold_resistance', '10 Ω', '10.7 Ω'));
        self::assertStringContainsString('Turns touch', (string) $says('phase_resistance', '10.7 Ω', '10 Ω'));
        self::assertNull($says('sensor_resistance', '157 kΩ', '80 kΩ'));
        self::assertNotNull($says('sensor_resistance', '157 kΩ', '70 kΩ'));
        self::assertStringContainsString('lug', (string) $says('bond', '0.05 Ω', '0.09 Ω'));
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
