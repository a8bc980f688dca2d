<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Work;

use DateTimeImmutable;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepCheck;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Simulation\BenchMeter;
use Magpie\Core\Tests\SampleBuild;
use Magpie\Core\Work\Forecast;
use Magpie\Core\Work\Reading;
use PHPUnit\Framework\TestCase;

final class WorkTest extends TestCase
{
    public function test_steps_come_in_order_but_never_before_what_they_wait_for(): void
    {
        $step = static fn (string $ref, int $position, string ...$after): Step => new Step(
            $ref,
            $position,
            's',
            $ref,
            array_values($after),
        );
        $steps = ['close' => $step('close', 1, 'nut'), 'nut' => $step('nut', 9), 'first' => $step('first', 0)];

        self::assertSame(
            ['first', 'nut', 'close'],
            array_map(static fn (Step $s): string => $s->ref, Sequence::order($steps)),
        );
        self::assertSame(['nut'], Sequence::waitsFor($steps['close'], $steps));
        self::assertSame([], Sequence::circle($steps));
    }

    public function test_a_reading_is_judged_by_its_tolerance(): void
    {
        $verdict = static fn (?string $reading): Verdict => Reading::verdict(
            new StepCheck(
                'gap',
                Quantity::of(10, 'mm'),
                Quantity::of(0.5, 'mm'),
                $reading === null ? null : Quantity::of($reading, 'mm'),
            ),
        );

        self::assertSame(Verdict::Holds, $verdict('10.4'));
        self::assertSame(Verdict::Tight, $verdict('9.55'));
        self::assertSame(Verdict::Tight, $verdict('10.5'));
        self::assertSame(Verdict::Fails, $verdict('10.51'));
        self::assertSame(Verdict::Unproven, $verdict(null));
    }

    public function test_the_forecast_follows_the_builders_own_pace(): void
    {
        // Guide 2 h and twice nothing to speak of, worked 3 h: 150 %. Left 4 h of guide: 6 h at 150 %, at 6 h a week 7 days.
        $short = static fn (string $ref): array => [
            'ref' => $ref,
            'section' => 's',
            'title' => $ref,
            'guide' => '1 s',
            'state' => 'done',
            'timings' => [['start' => 0, 'stop' => 1]],
        ];
        $of = static fn (array ...$more): array => Forecast::of(
            ($build = (new SampleBuild([
                'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP', 'weekly' => '6 h', 'pace' => '300 %'],
                'steps' => [
                    [
                        'ref' => 'a',
                        'section' => 's',
                        'title' => 'A',
                        'guide' => '2 h',
                        'state' => 'done',
                        'timings' => [['start' => 0, 'stop' => 7200], ['start' => 90000, 'stop' => 93600]],
                    ],
                    ['ref' => 'b', 'section' => 's', 'title' => 'B', 'guide' => '240 min'],
                    ['ref' => 'c', 'section' => 's', 'title' => 'C'],
                    ...$more,
                ],
            ]))->build)->steps,
            $build->plan,
            new DateTimeImmutable('2026-11-25T20:00:00Z'),
        )->toArray();
        $forecast = $of($short('d'), $short('e'));

        self::assertSame(
            [
                'hours_left' => 6.0,
                'pace' => 1.5,
                'pace_from' => 'own hours',
                'date' => '2026-12-02',
                'steps_without_guide' => 1,
            ],
            $forecast,
        );
        self::assertSame('the plan', $of($short('d'))['pace_from'], 'Two steps say nothing of a pace.');

        $plan = (new SampleBuild(['build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP', 'weekly' => '6 h']]))
            ->build->plan;
        $none = Forecast::of([], $plan, new DateTimeImmutable('2026-11-25'));
        self::assertSame([0.0, null], [$none->left->in('h'), $none->date], 'Nothing to do ends on no day, not today.');
    }

    public function test_an_open_danger_fault_forbids_power_until_it_is_fixed(): void
    {
        $with = static fn (string $state): bool => (new SampleBuild([
            'faults' => [
                [
                    'ref' => 'X',
                    'what' => 'bare mains screws',
                    'severity' => 'danger',
                    'state' => $state,
                    'fix' => 'cover fitted',
                    'found' => '2026-11-01',
                ],
            ],
        ]))->build->forbidsPower();

        self::assertTrue($with('open'));
        self::assertTrue($with('understood'));
        self::assertFalse($with('fixed'));
    }

    public function test_the_simulated_meter_reads_the_same_for_the_same_seed_and_near_nominal(): void
    {
        $check = new StepCheck('gap', Quantity::of(10, 'mm'), Quantity::of(0.5, 'mm'));
        $inside = 0;
        foreach (range(1, 200) as $seed) {
            $reading = (new BenchMeter($seed))->read($check);
            self::assertSame($reading->text(), (new BenchMeter($seed))->read($check)->text());
            self::assertEqualsWithDelta(10.0, $reading->in('mm'), 0.66);
            $inside += abs($reading->in('mm') - 10) <= 0.5 ? 1 : 0;
        }
        self::assertGreaterThan(120, $inside);
        self::assertLessThan(190, $inside, 'A meter that never finds anything wrong teaches nothing.');
    }
}
