<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Electrical;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Electrical\Stops;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Tests\SampleBuild;
use PHPUnit\Framework\TestCase;

/** What sits in a slot is fed through it, with no lead drawn. */
final class SeatsTest extends TestCase
{
    public function test_a_driver_in_a_slot_takes_its_current_through_the_board(): void
    {
        foreach (['board.drv-x', 'board'] as $seat) {
            $sample = self::board($seat);
            $circuits = Circuits::of(new Survey($sample->build));
            $flow = $circuits->in($circuits->scenarios()[0]);

            $this->assertEqualsWithDelta(2.5, $flow->current('W1')?->in('A'), 1e-6, $seat);
            $this->assertSame(Verdict::Holds, $sample->finding('E06/drv.power')->verdict, $seat);
        }
    }

    public function test_the_slot_carries_what_sits_in_it(): void
    {
        $this->assertSame(Verdict::Holds, self::board('board.drv-x', '3 A')->finding('E07/board.drv-x')->verdict);
        $finding = self::board('board.drv-x', '1.5 A')->finding('E07/board.drv-x');
        $this->assertSame(Verdict::Danger, $finding->verdict);
        $this->assertStringContainsString("2\u{a0}A through", $finding->headline);
    }

    public function test_a_board_on_too_high_a_supply_burns_the_driver_that_sits_in_it(): void
    {
        $this->assertSame(
            Verdict::Danger,
            self::board('board.drv-x', supply: '48 V')->finding('E06/drv.power')->verdict,
        );
    }

    public function test_a_driver_that_nobody_says_sits_anywhere_is_not_taken_as_fed(): void
    {
        $this->assertSame(Verdict::Unproven, self::board(null)->finding('E06/drv.power')->verdict);
    }

    public function test_a_lead_of_its_own_goes_before_the_slot(): void
    {
        $sample = self::board(
            'board.drv-x',
            rest: ['leads' => [['ref' => 'W9', 'from' => 'psu.out', 'to' => 'drv.power']]],
        );
        $circuits = Circuits::of(new Survey($sample->build));
        $flow = $circuits->in($circuits->scenarios()[0]);

        $this->assertEqualsWithDelta(0.5, $flow->current('W1')?->in('A'), 1e-6);
        $this->assertEqualsWithDelta(2.0, $flow->current('W9')?->in('A'), 1e-6);
    }

    public function test_a_stop_before_the_board_stops_what_sits_in_it(): void
    {
        $button = Examples::part('stop', 'stop_button', ['normally' => 'closed', 'latching' => true]);
        $sample = self::board(
            'board.drv-x',
            rest: [
                'parts' => [$button[0]],
                'needs' => [$button[1]],
                'leads' => [
                    ['ref' => 'W1', 'from' => 'psu.out', 'to' => 'stop.in'],
                    ['ref' => 'W2', 'from' => 'stop.out', 'to' => 'board.power'],
                ],
            ],
        );
        $stops = Stops::of(new Survey($sample->build));

        $this->assertSame(['drv' => Stops::LIVE], $stops->state([]));
        $this->assertSame(['drv' => Stops::OFF], $stops->state(['stop']));
    }

    public function test_moving_a_driver_to_another_board_is_seen_by_the_standing_inspection(): void
    {
        $before = self::board(null)->build;
        $after = self::board('board.drv-x')->build;
        $standing = \Magpie\Core\Inspection\Standing::of(Rules::inspector(), $before)->after($after);

        $this->assertSame(Verdict::Holds, $standing->findings()['E06/drv.power']->verdict);
    }

    /**
     * @param  array<string, list<array<string, mixed>>>  $rest
     */
    private static function board(
        ?string $seat,
        string $slot = '3 A',
        string $supply = '24 V',
        array $rest = [],
    ): SampleBuild {
        $board = Examples::part('board', 'controller_board', [
            'own_current' => '0.5 A',
            'min_voltage' => '12 V',
            'max_voltage' => '60 V',
        ]);
        $board[0]['ports'] = [
            [
                'name' => 'drv-x',
                'kind' => 'outlet',
                'fed_from' => 'power',
                'specs' => Examples::sheet(['rated_current' => $slot, 'use' => 'motor']),
            ],
        ];
        $driver = Examples::part('drv', 'motor_driver', [
            'supply_current' => '2 A',
            'min_voltage' => '8 V',
            'max_voltage' => '36 V',
        ]);
        $driver[1] += $seat === null ? [] : ['sits_in' => $seat];
        $file = Examples::file(
            [
                Examples::part('psu', 'power_supply', [
                    'output_voltage' => $supply,
                    'rated_current' => '10 A',
                ]),
                $board,
                $driver,
            ],
            ['leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'board.power']]],
        );
        foreach ($rest as $section => $entries) {
            $named = array_column($entries, 'ref');
            $file[$section] = [
                ...array_filter($file[$section], static fn (array $e): bool => ! in_array($e['ref'], $named, true)),
                ...$entries,
            ];
        }

        return new SampleBuild($file);
    }
}
