<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Library;

use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\LibraryFile;
use Magpie\Core\Machine\Doubts;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Reference\Fasteners;
use Magpie\Core\Reference\StandardTables;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LibraryTest extends TestCase
{
    /**
     * @return list<array<string, mixed>>
     */
    private static function starter(): array
    {
        return json_decode(
            (string) file_get_contents(dirname(__DIR__, 2).'/reference/starter-library.json'),
            true,
            64,
            JSON_THROW_ON_ERROR,
        );
    }

    public function test_the_starter_library_has_examples_of_every_family_and_says_that_they_are(): void
    {
        $families = $refs = [];
        foreach (self::starter() as $given) {
            $entry = LibraryFile::read($given);
            $families[$entry->part->family->key()] = true;
            $refs[] = $entry->part->ref;
            self::assertTrue($entry->example, $entry->part->ref);
            self::assertStringStartsWith('example-', $entry->part->ref);
            self::assertStringContainsString('xample', (string) $entry->part->notes);
            self::assertSame([], Doubts::about($entry->part), $entry->part->ref);
            self::assertSame($given, LibraryFile::write($entry), 'It is kept in canonical form.');
            foreach ($entry->part->specs as $spec) {
                self::assertNotSame(Evidence::Measured, $spec->evidence, 'Nobody has measured what is invented.');
            }
        }
        self::assertGreaterThanOrEqual(300, count($refs));
        self::assertSame($refs, array_values(array_unique($refs)));
        self::assertSame(
            [],
            array_diff(array_keys(Catalogue::standard()->all()), array_keys($families)),
            'Families without an example.',
        );
        self::assertGreaterThanOrEqual(40, count($families));
    }

    public function test_an_entry_is_found_by_the_words_of_its_sheet(): void
    {
        $words = LibraryFile::read(self::starter()[0])->words();

        self::assertSame(mb_strtolower($words), $words);
        foreach (['supply', 'caged', '5 v', 'fanless'] as $word) {
            self::assertStringContainsString($word, $words);
        }
    }

    /**
     * @return iterable<string, array{array<string, mixed>, string, string}>
     */
    public static function refusals(): iterable
    {
        $part = ['ref' => 'p', 'family' => 'fan', 'name' => 'P'];
        yield 'a current in volts' => [
            ['part' => $part + ['specs' => ['rated_current' => '3 V']]],
            '/part/specs/rated_current',
            'a current is wanted',
        ];
        yield 'a spec of another family' => [
            ['part' => $part + ['specs' => ['holding_torque' => '1 N m']]],
            '/part/specs/holding_torque',
            'has no such spec',
        ];
        yield 'a price without a currency' => [
            ['part' => $part, 'offers' => [['supplier' => 'S', 'price' => '3', 'date' => '2026-11-01']]],
            '/offers/0/currency',
            'is missing',
        ];
        yield 'a price of below nothing' => [
            [
                'part' => $part,
                'offers' => [['supplier' => 'S', 'price' => '-3', 'currency' => 'GBP', 'date' => '2026-11-01']],
            ],
            '/offers/0/price',
            'not negative',
        ];
        yield 'a fault nobody rates' => [
            ['part' => $part, 'faults' => [['what' => 'w', 'severity' => 'bad']]],
            '/faults/0/severity',
            'not one of',
        ];
        yield 'spares in pieces' => [['part' => $part, 'spares' => '3 A'], '/spares', 'a ratio is wanted'];
        yield 'a member nobody knows' => [['part' => $part, 'colour' => 'red'], '/colour', 'not known'];
    }

    /**
     * @param  array<string, mixed>  $given
     */
    #[DataProvider('refusals')]
    public function test_what_makes_no_sense_is_refused_at_its_member(
        array $given,
        string $pointer,
        string $reason,
    ): void {
        try {
            LibraryFile::read($given);
            self::fail('It was read.');
        } catch (CannotReadBuildFile $e) {
            self::assertSame($pointer, $e->pointer);
            self::assertStringContainsString($reason, $e->reason);
        }
    }

    public function test_torques_and_clearances_are_those_of_the_handbook(): void
    {
        // K·F·d with K 0.2 at 75 % of proof, 8.8: M3 1.3, M4 3.1, M5 6.2, M6 10.5, M8 25 N·m; ISO 273 medium.
        foreach (
            ['M3' => [1.3, 3.4], 'M4' => [3.1, 4.5], 'M5' => [6.2, 5.5], 'M6' => [10.5, 6.6], 'M8' => [25.0, 9.0]] as $thread => [$torque, $hole]
        ) {
            self::assertEqualsWithDelta($torque, Fasteners::torque($thread)?->in('N m'), $torque * 0.03, $thread);
            self::assertSame($hole, Fasteners::clearance($thread)?->in('mm'));
        }
        self::assertNull(Fasteners::torque('M2'));
    }

    public function test_every_standard_table_names_its_source_and_is_square(): void
    {
        foreach (StandardTables::all() as $table) {
            self::assertMatchesRegularExpression('/ISO|NEMA|ASTM|IEC/', $table['source']);
            self::assertGreaterThan(5, count($table['rows']), $table['key']);
            foreach ($table['rows'] as $row) {
                self::assertCount(count($table['columns']), $row, $table['key']);
            }
        }
    }
}
