<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Planning\BagLedger;
use PHPUnit\Framework\TestCase;

/** What each bag should hold, why it does not, and which screw this one is. */
final class BagLedgerTest extends TestCase
{
    /**
     * @param  list<array<string, mixed>>  $bags
     * @param  list<array<string, mixed>>  $steps
     */
    private static function build(array $bags, array $steps = []): Build
    {
        $screw = static fn (string $ref, string $thread, string $length, string $head = 'cap'): array => Examples::part(
            $ref,
            'screw',
            ['thread' => $thread, 'length' => $length, 'head' => $head],
        );

        return BuildFile::build(
            Examples::file(
                [
                    $screw('m3x10', 'M3', '10 mm'),
                    $screw('m3x12', 'M3', '12 mm'),
                    $screw('m3x12b', 'M3', '12 mm', 'button'),
                    $screw('m2x12', 'M2.5', '12 mm'),
                ],
                [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                    'bags' => $bags,
                    'steps' => array_map(
                        static fn (array $s, int $i): array => $s + [
                            'position' => $i,
                            'section' => 'A',
                            'title' => "Step {$s['ref']}",
                        ],
                        $steps,
                        array_keys($steps),
                    ),
                ],
            ),
        );
    }

    /**
     * @return array<string, array<string, mixed>> line by "bag/need"
     */
    private static function lines(Build $build): array
    {
        $lines = [];
        foreach ((new BagLedger($build))->toArray() as $bag) {
            foreach ($bag['lines'] as $line) {
                $lines["{$bag['ref']}/{$line['need']}"] = $line;
            }
        }

        return $lines;
    }

    public function test_what_went_in_is_taken_off_what_came_and_what_is_to_come_is_held_against_what_is_there(): void
    {
        $bag = static fn (array $more): array => [
            ['ref' => 'b', 'label' => 'Bag 1', 'holds' => [$more + ['need' => 'm3x10', 'expected' => 10]]],
        ];
        $steps = [
            ['ref' => 'a', 'state' => 'done', 'uses' => ['m3x10' => 4]],
            ['ref' => 'c', 'uses' => ['m3x10' => 6]],
        ];
        $line = self::lines(self::build($bag([]), $steps))['b/m3x10'];
        self::assertSame(
            [4, 6, 6, 0, 'as it should be'],
            [$line['used'], $line['due'], $line['to_come'], $line['short'], $line['state']],
        );

        $line = self::lines(self::build($bag(['found' => 9]), $steps))['b/m3x10'];
        self::assertSame([5, 1, ['1 were never in the bag.']], [$line['due'], $line['short'], $line['why']]);

        $line = self::lines(self::build($bag(['left' => 5]), $steps))['b/m3x10'];
        self::assertSame([1, 'short'], [$line['short'], $line['state']], 'Counted: one has gone astray.');

        $line = self::lines(self::build($bag(['left' => 8]), [$steps[0]]))['b/m3x10'];
        self::assertSame('more than due: count again', $line['state'], 'Two that should be in are not.');

        // Counted before four went in: what is due is what is there.
        $line = self::lines(self::build($bag(['left' => 10]), $steps))['b/m3x10'];
        self::assertSame([0, 'more than due: count again'], [$line['short'], $line['state']]);
        $line = self::lines(self::build($bag(['found' => 8, 'left' => 8]), $steps))['b/m3x10'];
        self::assertSame([2, 'short'], [$line['short'], $line['state']], 'A stale count hides no shortage.');
    }

    public function test_a_shortage_is_explained_by_an_optional_step_and_met_from_a_bag_that_has_more(): void
    {
        $build = self::build(
            [
                [
                    'ref' => 'b',
                    'label' => 'Bag 1',
                    'holds' => [['need' => 'm3x10', 'expected' => 6]],
                    'for' => ['a', 'o', 'c'],
                ],
                [
                    'ref' => 'spare',
                    'label' => 'Spares',
                    'holds' => [['need' => 'm3x10', 'expected' => 3]],
                    'for' => ['x'],
                ],
            ],
            [
                ['ref' => 'a', 'state' => 'done', 'uses' => ['m3x10' => 2]],
                ['ref' => 'o', 'state' => 'done', 'optional' => true, 'uses' => ['m3x10' => 2]],
                ['ref' => 'c', 'uses' => ['m3x10' => 4]],
                ['ref' => 'x', 'uses' => ['m3x10' => 1]],
            ],
        );
        $line = self::lines($build)['b/m3x10'];

        self::assertSame(2, $line['short']);
        self::assertSame(['“Step o” may be left out and took 2.', '“Spares” has 2 over.'], $line['why']);
        self::assertSame(
            'over',
            self::lines(
                self::build([['ref' => 'b', 'label' => 'Bag 1', 'holds' => [['need' => 'm3x10', 'expected' => 6]]]]),
            )['b/m3x10']['state'],
        );
    }

    public function test_of_two_bags_for_any_step_the_first_gives_and_then_the_second(): void
    {
        $lines = self::lines(
            self::build(
                [
                    ['ref' => 'b', 'label' => 'B', 'holds' => [['need' => 'm3x10', 'expected' => 4]]],
                    ['ref' => 'c', 'label' => 'C', 'holds' => [['need' => 'm3x10', 'expected' => 4]]],
                ],
                [['ref' => 'a', 'state' => 'done', 'uses' => ['m3x10' => 5]], ['ref' => 'z', 'uses' => ['m3x10' => 4]]],
            ),
        );
        self::assertSame([4, 0, 0], [$lines['b/m3x10']['used'], $lines['b/m3x10']['due'], $lines['b/m3x10']['short']]);
        self::assertSame([1, 3, 1], [$lines['c/m3x10']['used'], $lines['c/m3x10']['due'], $lines['c/m3x10']['short']]);
    }

    public function test_a_screw_in_hand_is_known_by_length_thread_and_head(): void
    {
        $ledger = new BagLedger(
            self::build([['ref' => 'b', 'label' => 'Bag 1', 'holds' => [['need' => 'm3x12', 'expected' => 4]]]]),
        );
        $names = static fn (string ...$asked): array => array_column($ledger->inHand(...$asked), 'need');

        self::assertSame(
            ['m3x12', 'm3x12b'],
            $names('11.8 mm', '2.9 mm'),
            'A thread measures a little under its name.',
        );
        self::assertSame(['m3x12b'], $names('11.8', 'M3', 'button'));
        self::assertSame(['m2x12'], $names('12 mm', '2.45 mm'));
        self::assertSame([], $names('11 mm'), 'Between two lengths it is neither.');
        self::assertSame(['m3x10'], $names('10.4 mm'));
        self::assertSame([], $names('12 mm', '3.3 mm'), 'No thread is thicker than its name.');
        self::assertSame(['Bag 1'], $ledger->inHand('12 mm', 'M3', 'cap')[0]['bags']);
        self::assertSame('+0.3 mm', $ledger->inHand('0.4843 in', 'M3', 'cap')[0]['off'], '12.3 mm');
    }
}
