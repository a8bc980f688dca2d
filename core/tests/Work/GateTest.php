<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Work;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Planning\OpenItems;
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

    public function test_glue_of_the_step_before_keeps_it_until_it_has_set(): void
    {
        $build = static fn (array $first): Build => BuildFile::build([
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
            'steps' => [
                $first + [
                    'ref' => 'first',
                    'section' => 'A',
                    'title' => 'Glue the feet',
                    'state' => 'done',
                    'sets' => '12 h',
                ],
                ['ref' => 's', 'position' => 2, 'section' => 'A', 'title' => 'Second', 'after' => ['first']],
            ],
        ]);
        $says = static fn (Build $b, int $now): array => array_map(
            static fn (Gate $g): string => $g->says,
            Gate::closed($b, $b->steps['s'], now: $now),
        );
        $glued = $build(['timings' => [['start' => 0, 'stop' => 3600]]]);

        self::assertSame(['“Glue the feet” has to set for another 2.0 h'], $says($glued, 11 * 3600));
        self::assertSame([], $says($glued, 13 * 3600));
        self::assertSame([], $says($build([]), 3600), 'Nobody knows when it was glued.');
        self::assertContains('sets', array_column(OpenItems::of($glued, 11 * 3600), 'kind'));
        self::assertNotContains('sets', array_column(OpenItems::of($glued, 13 * 3600), 'kind'));
    }

    public function test_a_guess_has_to_be_settled_at_the_step_that_shows_it(): void
    {
        $steps = static fn (array $guess, string $state = 'done'): array => [
            'steps' => [
                [
                    'ref' => 'first',
                    'position' => 1,
                    'section' => 'A',
                    'title' => 'First',
                    'state' => $state,
                    'guesses' => [$guess + ['what' => 'lip outwards', 'settled_by' => 's']],
                ],
                ['ref' => 's', 'position' => 2, 'section' => 'A', 'title' => 'Second'],
            ],
        ];
        self::assertSame(['“lip outwards” was a guess: say what it turned out to be'], self::closed([], $steps([])));
        self::assertSame([], self::closed([], $steps(['settled' => 'inwards'])));
        self::assertSame([], self::closed([], $steps([], 'open')), 'Nothing was guessed yet.');
    }

    public function test_a_tool_on_the_list_that_is_on_its_way_keeps_it(): void
    {
        [$part, $place] = Examples::part('crimper', 'tool', []);
        $closed = static function (array $need, array $more) use ($part, $place): array {
            $build = BuildFile::build(
                Examples::file(
                    [[$part, $need + $place]],
                    $more + [
                        'magpie' => BuildFile::VERSION,
                        'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                        'suppliers' => [['ref' => 'shop', 'name' => 'Shop', 'currency' => 'GBP']],
                        'steps' => [
                            ['ref' => 's', 'section' => 'A', 'title' => 'Crimp', 'tools' => ['Crimper', 'patience']],
                        ],
                    ],
                ),
            );

            return array_map(static fn (Gate $g): string => $g->says, Gate::closed($build, $build->steps['s']));
        };
        $bought = static fn (int $here): array => [
            'purchases' => [
                [
                    'ref' => 'p',
                    'part' => 'crimper',
                    'supplier' => 'shop',
                    'pieces' => 1,
                    'received' => $here,
                    'paid' => '1',
                    'date' => '2026-03-01',
                ],
            ],
        ];

        self::assertSame(['crimper is not at hand'], $closed([], $bought(0)));
        self::assertSame([], $closed([], $bought(1)));
        self::assertSame([], $closed([], []), 'Nobody has noted anything of it.');
    }

    public function test_power_comes_on_only_where_no_danger_is_open_anywhere_and_no_lead_hangs_by_one_end(): void
    {
        $danger = [
            'faults' => [
                [
                    'ref' => 'X',
                    'what' => 'Bare terminals',
                    'severity' => 'danger',
                    'found' => '2026-03-01',
                    'step' => 'first',
                ],
            ],
        ];
        self::assertSame(['open danger: Bare terminals'], self::closed(['energises' => true], $danger));
        self::assertSame([], self::closed([], $danger), 'Elsewhere, work goes on.');

        $build = BuildFile::read((string) file_get_contents(dirname(__DIR__, 3).'/demo/linnet.json'));
        $data = BuildFile::data($build);
        $ways = static function (array $ends) use ($data): array {
            $data['faults'] = [];
            foreach ($data['leads'] as $i => $one) {
                $data['leads'][$i] =
                    array_diff_key($one, ['made' => true, 'ends' => true]) + ($i === 0 ? ['ends' => $ends] : []);
            }
            $data['steps'] = [['ref' => 's', 'section' => 'A', 'title' => 'Power', 'energises' => true]];
            $b = BuildFile::build(array_diff_key($data, ['documents' => 1, 'questions' => 1, 'bags' => 1]));

            return array_map(static fn (Gate $g): string => $g->kind, Gate::closed($b, $b->steps['s']));
        };
        self::assertSame([], $ways([[], []]));
        self::assertSame(['power'], $ways([['made' => true], []]));
        self::assertSame([], $ways([['made' => true], ['made' => true]]));
    }

    public function test_what_cannot_be_taken_back_is_locked_by_all_but_its_own_reading(): void
    {
        $locked = static function (array $step): array {
            $build = BuildFile::build([
                'magpie' => BuildFile::VERSION,
                'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                'steps' => [
                    ['ref' => 'first', 'section' => 'A', 'title' => 'First'],
                    $step + [
                        'ref' => 's',
                        'section' => 'A',
                        'title' => 'Cut the belts',
                        'after' => ['first'],
                        'check' => ['what' => 'length', 'nominal' => '1 m', 'tolerance' => '1 mm'],
                    ],
                ],
            ]);
            $one = $build->steps['s'];

            return array_map(static fn (Gate $g): string => $g->kind, Gate::locked($one, Gate::closed($build, $one)));
        };
        self::assertSame(['step'], $locked(['act' => 'cut']));
        self::assertSame([], $locked([]));
    }
}
