<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use Magpie\Core\Advice\InspectionReport;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Support\Schemas;

final class BuildFileTest extends TestCase
{
    /**
     * @return iterable<string, array{string}>
     */
    public static function demos(): iterable
    {
        foreach (glob(dirname(__DIR__, 3).'/demo/*.json') ?: [] as $file) {
            yield basename($file) => [$file];
        }
    }

    #[DataProvider('demos')]
    public function test_reading_and_writing_a_build_loses_nothing(string $file): void
    {
        $text = (string) file_get_contents($file);

        self::assertSame($text, BuildFile::write(BuildFile::read($text)));
    }

    #[DataProvider('demos')]
    public function test_the_same_build_gives_the_same_inspection_to_the_byte(string $file): void
    {
        $text = (string) file_get_contents($file);
        $judge = static fn (): string => InspectionReport::json(Rules::inspector()->inspect(BuildFile::read($text)));

        self::assertSame($judge(), $judge());
    }

    #[DataProvider('demos')]
    public function test_the_demo_keeps_to_the_published_schema(string $file): void
    {
        self::assertSame([], Schemas::breaks((string) file_get_contents($file), 'format/build.schema.json'));
    }

    public function test_the_schema_refuses_what_the_reader_refuses(): void
    {
        foreach (
            [
                ['surprise' => 1],
                ['needs' => [['ref' => 'x']]],
                ['leads' => [['ref' => 'W1', 'from' => 'a.b', 'to' => 'c.d', 'route' => 'winding']]],
            ] as $extra
        ) {
            $text = (string) json_encode(
                ['magpie' => 1, 'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP']] + $extra,
            );

            self::assertNotSame([], Schemas::breaks($text, 'format/build.schema.json'), $text);
        }
    }

    public function test_every_verdict_shows_in_each_demo_that_is_not_finished_and_no_alarm_in_the_one_that_is(): void
    {
        foreach (self::demos() as $name => [$file]) {
            $tally = Rules::inspector()->inspect(BuildFile::read((string) file_get_contents($file)))->tally();
            if ($name === 'plover.json') {
                self::assertSame([0, 0, 0], [$tally['danger'], $tally['fails'], $tally['unproven']]);

                continue;
            }
            foreach ($tally as $verdict => $count) {
                self::assertGreaterThan(0, $count, "{$name} shows no \"{$verdict}\".");
            }
        }
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, string}>
     */
    public static function slips(): iterable
    {
        $part = ['ref' => 'bed', 'family' => 'heater', 'name' => 'Bed'];
        $need = ['ref' => 'bed', 'role' => 'Bed', 'family' => 'heater', 'choice' => 'bed'];
        yield 'a misspelt member' => [['partz' => []], '/partz', 'not known'];
        yield 'an unknown family' => [
            ['parts' => [['family' => 'warp_core'] + $part]],
            '/parts/0/family',
            'not a family',
        ];
        yield 'a spec of the wrong dimension' => [
            ['parts' => [$part + ['specs' => ['rated_power' => '30 A']]]],
            '/parts/0/specs/rated_power',
            'is a current; a power is wanted',
        ];
        yield 'the same, with evidence' => [
            ['parts' => [$part + ['specs' => ['rated_power' => ['value' => '30 A', 'evidence' => 'datasheet']]]]],
            '/parts/0/specs/rated_power/value',
            'a power is wanted',
        ];
        yield 'a bare number' => [
            ['parts' => [$part + ['specs' => ['rated_power' => '288']]]],
            '/parts/0/specs/rated_power',
            'has no unit',
        ];
        yield 'a spec that is on no sheet' => [
            ['parts' => [$part + ['specs' => ['wingspan' => '1 m']]]],
            '/parts/0/specs/wingspan',
            'no such spec',
        ];
        yield 'a negative power' => [
            ['parts' => [$part + ['specs' => ['rated_power' => '-5 W']]]],
            '/parts/0/specs/rated_power',
            'cannot be negative',
        ];
        yield 'an unknown evidence' => [
            ['parts' => [$part + ['specs' => ['rated_power' => ['value' => '5 W', 'evidence' => 'rumour']]]]],
            '/parts/0/specs/rated_power/evidence',
            'not one of',
        ];
        yield 'two parts of one name' => [['parts' => [$part, $part]], '/parts/1/ref', 'already used'];
        yield 'a choice that is not there' => [['needs' => [$need]], '/needs/0/choice', 'there is no part'];
        yield 'a choice of another family' => [
            ['parts' => [['family' => 'fan'] + $part], 'needs' => [$need]],
            '/needs/0/choice',
            'another family',
        ];
        yield 'a lead to a port that is not there' => [
            [
                'parts' => [$part],
                'needs' => [$need],
                'leads' => [['ref' => 'W1', 'from' => 'bed.power', 'to' => 'bed.socket']],
            ],
            '/leads/0/to',
            'has no port "socket" (it has: power, earth)',
        ];
        yield 'a lead from nowhere' => [
            [
                'parts' => [$part],
                'needs' => [$need],
                'leads' => [['ref' => 'W1', 'from' => 'psu.out', 'to' => 'bed.power']],
            ],
            '/leads/0/from',
            'there is no need "psu"',
        ];
        yield 'a lead of no length' => [
            [
                'parts' => [$part],
                'needs' => [$need],
                'leads' => [['ref' => 'W1', 'from' => 'bed.power', 'to' => 'bed.power', 'length' => '0 m']],
            ],
            '/leads/0/length',
            'joins nothing',
        ];
        yield 'a load above its rating' => [
            [
                'parts' => [$part],
                'needs' => [$need],
                'scenarios' => [['ref' => 's', 'name' => 'S', 'loads' => ['bed' => '130 %']]],
            ],
            '/scenarios/0/loads/bed',
            'more than 100 %',
        ];
        yield 'steps that wait for each other' => [
            [
                'steps' => [
                    ['ref' => 'a', 'section' => 's', 'title' => 't', 'after' => ['b']],
                    ['ref' => 'b', 'section' => 's', 'title' => 't', 'after' => ['a']],
                ],
            ],
            '/steps',
            'in a circle: a → b → a',
        ];
        yield 'a danger fault closed without a fix' => [
            [
                'faults' => [
                    ['ref' => 'X', 'what' => 'w', 'severity' => 'danger', 'state' => 'closed', 'found' => '2026-11-01'],
                ],
            ],
            '/faults/0/fix',
            'says how',
        ];
        yield 'a day that is none' => [
            ['faults' => [['ref' => 'X', 'what' => 'w', 'severity' => 'defect', 'found' => '2026-02-30']]],
            '/faults/0/found',
            'YYYY-MM-DD',
        ];
        yield 'a negative budget' => [
            ['build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP', 'budget' => '-4']],
            '/build/budget',
            'not an amount',
        ];
        yield 'an escaped pointer' => [
            ['parts' => [$part + ['specs' => ['a/b' => '1 m']]]],
            '/parts/0/specs/a~1b',
            'no such spec',
        ];
    }

    /**
     * @param  array<string, mixed>  $extra
     */
    #[DataProvider('slips')]
    public function test_a_slip_is_named_with_its_place_and_reason(array $extra, string $pointer, string $reason): void
    {
        try {
            BuildFile::build($extra + ['magpie' => 1, 'build' => ['name' => 'A', 'kind' => 'b', 'currency' => 'GBP']]);
            self::fail('It was read.');
        } catch (CannotReadBuildFile $e) {
            self::assertSame($pointer, $e->pointer);
            self::assertStringContainsString($reason, $e->reason);
        }
    }

    public function test_text_that_is_no_build_file_is_refused(): void
    {
        foreach (
            [
                '' => 'not JSON',
                '{"a":1}' => 'no "magpie" member',
                '{"magpie":7}' => 'only versions 1 and 2',
                '[]' => 'no "magpie" member',
            ] as $text => $reason
        ) {
            try {
                BuildFile::read($text);
                self::fail('It was read.');
            } catch (CannotReadBuildFile $e) {
                self::assertStringContainsString($reason, $e->getMessage());
            }
        }
    }
}
