<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Work;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Work\Gate;
use PHPUnit\Framework\TestCase;

/** What keeps a step from being done. */
final class GateTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $step
     * @param  array<string, mixed>  $with
     * @param  array<string, mixed>  $need
     * @return list<string> what is said
     */
    private static function closed(array $step, array $with = [], array $need = []): array
    {
        [$part, $place] = Examples::part('idler', 'pulley', []);
        $build = BuildFile::build(
            Examples::file(
                [[$part, $need + ['quantity' => 8, 'role' => 'Idlers'] + $place]],
                $with + [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                    'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP']],
                    'steps' => [
                        ['ref' => 'first', 'position' => 1, 'section' => 'A', 'title' => 'First', 'state' => 'open'],
                        $step + ['ref' => 's', 'position' => 2, 'section' => 'A', 'title' => 'Second'],
                    ],
                ],
            ),
        );

        return array_map(static fn (Gate $g): string => $g->says, Gate::closed($build, $build->steps['s']));
    }

    /**
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    private static function bought(array $more): array
    {
        return [
            'purchases' => [
                $more + [
                    'ref' => 'p',
                    'part' => 'idler',
                    'supplier' => 'shop',
                    'pieces' => 8,
                    'paid' => '1',
                    'date' => '2026-03-01',
                ],
            ],
        ];
    }

    public function test_nothing_keeps_what_asks_for_nothing(): void
    {
        self::assertSame([], self::closed([]));
    }

    public function test_a_step_before_it_keeps_it_and_one_that_is_skipped_does_not(): void
    {
        self::assertSame(['“First” comes first'], self::closed(['after' => ['first']]));
        $steps = static fn (string $state): array => [
            'steps' => [
                ['ref' => 'first', 'position' => 1, 'section' => 'A', 'title' => 'First', 'state' => $state],
                ['ref' => 's', 'position' => 2, 'section' => 'A', 'title' => 'Second', 'after' => ['first']],
            ],
        ];
        self::assertSame([], self::closed([], $steps('done')));
        self::assertSame([], self::closed([], $steps('skipped')));
    }

    public function test_a_reading_never_taken_or_out_of_its_limits_keeps_it_and_taking_it_away_does_again(): void
    {
        $check = ['what' => 'parallel', 'nominal' => '0 mm', 'tolerance' => '0.05 mm'];
        $with = static fn (?string $read): array => self::closed([
            'check' => array_filter(['measured' => $read] + $check),
        ]);

        self::assertSame(['parallel was not measured'], $with(null));
        self::assertSame([], $with('0.05 mm'));
        self::assertSame([], $with('-0.04 mm'));
        self::assertSame(["parallel: 0.051\u{a0}mm is out of 0\u{a0}mm ± 0.05\u{a0}mm"], $with('0.051 mm'));
    }

    public function test_pieces_that_are_not_here_keep_it_and_what_nobody_noted_does_not(): void
    {
        $uses = ['uses' => ['idler' => 8]];

        self::assertSame([], self::closed($uses), 'Nobody has noted anything of it.');
        self::assertSame(['Idlers is not here'], self::closed($uses, self::bought([])));
        self::assertSame(['Idlers: 4 of 8 are here'], self::closed($uses, self::bought(['received' => 4])));
        self::assertSame([], self::closed($uses, self::bought(['received' => 8])));
        self::assertSame(
            ['Idlers: 7 of 8 are here'],
            self::closed($uses, self::bought(['received' => 8, 'returned' => 1])),
        );
        self::assertSame([], self::closed($uses, self::bought(['received' => 4]), ['owned' => 4]));
        self::assertSame(['Idlers: 3 of 8 are here'], self::closed($uses, [], ['owned' => 3]));
        self::assertSame(
            [],
            self::closed($uses, self::bought(['state' => 'considered'])),
            'A thought is not an order.',
        );
        // What went in at a step that is done is not there for another.
        $steps = static fn (string $state): array => [
            'steps' => [
                [
                    'ref' => 'first',
                    'position' => 1,
                    'section' => 'A',
                    'title' => 'First',
                    'state' => $state,
                    'uses' => ['idler' => 3],
                ],
                ['ref' => 's', 'position' => 2, 'section' => 'A', 'title' => 'Second', 'uses' => ['idler' => 6]],
            ],
        ];
        self::assertSame([], self::closed([], $steps('open') + self::bought(['received' => 8])));
        self::assertSame(
            ['Idlers: 5 of 6 are here'],
            self::closed([], $steps('done') + self::bought(['received' => 8])),
        );
    }

    public function test_an_open_danger_at_it_or_on_what_goes_in_keeps_it(): void
    {
        $fault = static fn (array $more): array => [
            'faults' => [
                $more + [
                    'ref' => 'X',
                    'what' => 'Bare terminals',
                    'severity' => 'danger',
                    'state' => 'open',
                    'found' => '2026-03-01',
                ],
            ],
        ];
        self::assertSame(['open danger: Bare terminals'], self::closed([], $fault(['step' => 's'])));
        self::assertSame(
            ['open danger: Bare terminals'],
            self::closed(['uses' => ['idler' => 1]], $fault(['need' => 'idler'])),
        );
        self::assertSame([], self::closed([], $fault(['need' => 'idler'])), 'It is not of this step.');
        self::assertSame([], self::closed([], $fault(['step' => 's', 'severity' => 'defect'])));
        self::assertSame([], self::closed([], $fault(['step' => 's', 'state' => 'fixed', 'fix' => 'Covered'])));
    }
}
