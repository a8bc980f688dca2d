<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Planning;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use Magpie\Core\Planning\DocumentReport;
use Magpie\Core\Work\Gate;
use PHPUnit\Framework\TestCase;

/** Which document holds, and what it says for this machine. */
final class DocumentReportTest extends TestCase
{
    /**
     * @param  list<array<string, mixed>>  $documents
     * @param  array<string, mixed>  $more
     * @param  array<string, mixed>  $need
     */
    private static function build(array $documents, array $more = [], array $need = []): Build
    {
        [$part, $place] = Examples::part('belt', 'belt', []);

        return BuildFile::build(
            Examples::file(
                [[$part, $need + $place]],
                $more + [
                    'magpie' => BuildFile::VERSION,
                    'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP'],
                    'steps' => [
                        ['ref' => 'a', 'position' => 1, 'section' => 'A', 'title' => 'Belts'],
                        ['ref' => 'b', 'position' => 2, 'section' => 'A', 'title' => 'Covers'],
                    ],
                    'documents' => array_map(
                        static fn (array $d): array => $d + ['title' => "Paper {$d['ref']}"],
                        $documents,
                    ),
                ],
            ),
        );
    }

    /**
     * @return array{list<string>, list<string>, bool} followed, passed over, undecided at step a
     */
    private static function at(Build $build): array
    {
        $row = (new DocumentReport($build))->toArray()['steps'][0];

        return [array_column($row['follow'], 'ref'), array_column($row['passed_over'], 'ref'), $row['undecided']];
    }

    public function test_the_later_word_holds_where_both_speak_also_through_a_third(): void
    {
        $speaks = ['covers' => [['step' => 'a', 'pages' => '3']]];
        self::assertSame(
            [['m', 'u'], [], true],
            self::at(self::build([['ref' => 'm'] + $speaks, ['ref' => 'u'] + $speaks])),
        );
        self::assertSame(
            [['u'], ['m'], false],
            self::at(self::build([['ref' => 'm'] + $speaks, ['ref' => 'u', 'over' => ['m']] + $speaks])),
        );
        self::assertSame(
            [['u'], ['m'], false],
            self::at(
                self::build([
                    ['ref' => 'm'] + $speaks,
                    ['ref' => 'between', 'over' => ['m']],
                    ['ref' => 'u', 'over' => ['between']] + $speaks,
                ]),
            ),
            'The one between says nothing of the step.',
        );
        self::assertSame(
            [['m'], ['u'], false],
            self::at(
                self::build([
                    ['ref' => 'm'] + $speaks,
                    ['ref' => 'u', 'over' => ['m'], 'covers' => [['step' => 'a', 'superseded' => true]]],
                ]),
            ),
            'Pages that are passed over say nothing.',
        );
    }

    public function test_documents_that_prevail_in_a_circle_are_refused_by_name(): void
    {
        try {
            self::build([['ref' => 'm', 'over' => ['u']], ['ref' => 'u', 'over' => ['m']]]);
            self::fail('A circle was taken.');
        } catch (CannotReadBuildFile $e) {
            self::assertStringContainsString('m → u', $e->getMessage());
        }
    }

    public function test_a_step_waits_for_the_document_that_holds_to_be_read_and_for_no_other(): void
    {
        $says = static function (array $documents): array {
            $build = self::build($documents);

            return array_map(static fn (Gate $g): string => $g->says, Gate::closed($build, $build->steps['a']));
        };
        $speaks = ['covers' => [['step' => 'a']]];

        self::assertSame(['“Paper m” is not read'], $says([['ref' => 'm'] + $speaks]));
        self::assertSame([], $says([['ref' => 'm', 'read' => '2026-03-01'] + $speaks]));
        self::assertSame([], $says([['ref' => 'm']]), 'It says nothing of the step.');
        self::assertSame(
            ['“Paper u” is not read'],
            $says([['ref' => 'm'] + $speaks, ['ref' => 'u', 'over' => ['m']] + $speaks]),
        );
    }

    public function test_a_count_or_length_written_for_another_size_is_worked_out_for_this_one(): void
    {
        $own = static function (array $says, array $need, array $more = []): array {
            $build = self::build(
                [['ref' => 'm', 'says' => [$says + ['what' => 'belt', 'need' => 'belt']]]],
                $more,
                $need,
            );
            $row = (new DocumentReport($build))->toArray()['says'][0];

            return [$row['verdict'], $row['own']];
        };
        $sized = [
            'brief' => ['kit_size' => ['x' => '300 mm'], 'size' => ['x' => '400 mm']],
        ];
        $longer = ['scale' => ['along' => 'x', 'as' => 'length', 'longer' => '200 mm']];
        $count = ['quantity' => 7, 'scale' => ['along' => 'x', 'as' => 'count', 'every' => '50 mm']];

        self::assertSame(['other', "600\u{a0}mm"], $own(['says' => '500 mm'], $longer, $sized));
        self::assertSame(['same', "600\u{a0}mm"], $own(['says' => '0.6 m'], $longer, $sized));
        self::assertSame(
            ['other', '9'],
            $own(['says' => '7'], $count, $sized),
            '400 mm in steps of 50, and one at the start.',
        );
        self::assertSame(['unknown', null], $own(['says' => '500 mm'], $longer), 'Nobody has said how large it is.');
        self::assertSame(['same', '4'], $own(['says' => '4'], ['quantity' => 4]));
        self::assertSame(['unknown', null], $own(['says' => '500 mm'], ['quantity' => 4]), 'A length is not a count.');
    }
}
