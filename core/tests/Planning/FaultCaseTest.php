<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Planning\FaultCase;
use PHPUnit\Framework\TestCase;

/** A fault looked into: suspects, siblings, and the earlier look that would have caught it. */
final class FaultCaseTest extends TestCase
{
    /** Ten at night, universal time. */
    private const TEN = 1_700_000_000 - (1_700_000_000 % 86_400) + 22 * 3600;

    /**
     * @param  array<string, mixed>  $fault
     * @param  array<string, array<string, mixed>>  $steps  by ref, what more they say
     * @param  array<string, mixed>  $more
     * @return array{suspects: list<array<string, mixed>>, siblings: list<array<string, mixed>>, earlier: array<string, mixed>|null}
     */
    private static function look(array $fault, array $steps = [], array $more = [], int $offset = 0): array
    {
        $all = ['fit' => ['uses' => ['plug' => 1]], 'far' => ['uses' => ['fan' => 1]], 'test' => []];
        $rows = [];
        foreach ($all as $ref => $own) {
            $rows[] = ($steps[$ref] ?? []) +
                $own + [
                    'ref' => $ref,
                    'position' => count($rows),
                    'section' => 'A',
                    'title' => "Step {$ref}",
                    'state' => 'done',
                ];
        }
        $need = static fn (string $ref, int $quantity): array => [
            'ref' => $ref,
            'role' => ucfirst($ref),
            'family' => 'consumable',
            'quantity' => $quantity,
            'candidates' => ["P-{$ref}"],
            'choice' => "P-{$ref}",
        ];
        $build = BuildFile::build(
            array_diff_key($more, ['others' => true]) + [
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                'parts' => [
                    ['ref' => 'P-plug', 'family' => 'consumable', 'name' => 'Plug'],
                    ['ref' => 'P-fan', 'family' => 'consumable', 'name' => 'Fan'],
                ],
                'needs' => [$need('plug', 3), $need('fan', 1)],
                'steps' => $rows,
                'faults' => [
                    $fault + [
                        'ref' => 'X1',
                        'what' => 'Plug browns',
                        'severity' => 'defect',
                        'found' => '2026-03-01',
                        'step' => 'test',
                        'need' => 'plug',
                    ],
                    ...$more['others'] ?? [],
                ],
            ] +
                [],
        );

        return (new FaultCase($build, 'X1', $offset))->toArray();
    }

    /**
     * @param  array{suspects: list<array<string, mixed>>}  $case
     * @return list<string>
     */
    private static function why(array $case): array
    {
        return array_map(static fn (array $s): string => "{$s['ref']}: {$s['why']}", $case['suspects']);
    }

    public function test_nothing_is_suspected_of_sound_work_by_day(): void
    {
        self::assertSame([], self::look([])['suspects']);
    }

    public function test_guessed_waved_through_and_late_work_on_the_part_is_suspected_and_that_on_another_is_not(): void
    {
        $odd = [
            'guesses' => [['what' => 'which pin is plus']],
            'waived' => 'the crimper is lent',
            'timings' => [['start' => self::TEN - 3600, 'stop' => self::TEN + 60]],
        ];
        self::assertSame(
            [
                'fit: guessed: which pin is plus',
                'fit: done all the same: the crimper is lent',
                'fit: worked on at 22:01',
            ],
            self::why(self::look([], ['fit' => $odd])),
        );
        self::assertSame([], self::look([], ['far' => $odd])['suspects']);
        self::assertSame(
            ['fit: worked on at 04:30'],
            self::why(
                self::look([], ['fit' => ['timings' => [['start' => self::TEN - 3600, 'stop' => self::TEN]]]], [], 390),
            ),
            'By the clock of the builder, six and a half hours ahead.',
        );
        self::assertSame(
            [],
            self::look([], ['fit' => ['timings' => [['start' => self::TEN - 3600, 'stop' => self::TEN]]]], [], -60)[
                'suspects'
            ],
        );
    }

    public function test_what_went_in_for_it_is_suspected(): void
    {
        $case = self::look(
            [],
            [],
            [
                'bags' => [
                    [
                        'ref' => 'b',
                        'label' => 'Bag 1',
                        'holds' => [['need' => 'fan', 'expected' => 1, 'instead_of' => 'plug']],
                    ],
                ],
            ],
        );
        self::assertSame(['plug: Fan went in for it, from “Bag 1”'], self::why($case));
    }

    public function test_the_rest_of_the_article_and_of_the_way_of_working_may_have_it_too(): void
    {
        $case = self::look(
            ['practice' => 'Crimped with pliers'],
            ['far' => ['notes' => 'crimped with pliers, twice']],
            [
                'others' => [
                    [
                        'ref' => 'X2',
                        'what' => 'Loose pin',
                        'severity' => 'defect',
                        'found' => '2026-03-01',
                        'practice' => 'crimped with PLIERS',
                    ],
                    ['ref' => 'X3', 'what' => 'Scratch', 'severity' => 'blemish', 'found' => '2026-03-01'],
                ],
            ],
        );
        self::assertSame(
            ['needs/plug', 'faults/X2', 'steps/far'],
            array_map(static fn (array $s): string => "{$s['section']}/{$s['ref']}", $case['siblings']),
        );
        self::assertSame('Plug, 2 pieces', $case['siblings'][0]['what'], 'Three are fitted, and one is the one.');
    }

    public function test_the_step_that_first_had_it_in_hand_would_have_caught_it(): void
    {
        $case = self::look(
            [],
            [
                'far' => ['timings' => [['start' => 0, 'stop' => 5400]]],
                'test' => ['timings' => [['start' => 0, 'stop' => 1800]]],
            ],
        );
        self::assertSame(
            ['step' => 'fit', 'title' => 'Step fit', 'hours' => 2.0, 'steps' => 2, 'has_check' => false],
            $case['earlier'],
        );
        self::assertNull(self::look(['step' => 'fit'])['earlier'], 'It was found where it went in.');
    }
}
