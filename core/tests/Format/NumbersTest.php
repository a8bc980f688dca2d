<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Format;

use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Reading;
use PHPUnit\Framework\TestCase;

/** Every field that takes a number, with every way a number is written: read right, or asked for again; never read as another. */
final class NumbersTest extends TestCase
{
    private const SPELLINGS = ['4,90' => 4.9, '4.90' => 4.9, '1.234,56' => 1234.56, '1,234.56' => 1234.56];

    /** Any number inside a text may stand in it; these are texts, and kept as they are. */
    private const LEADING = '/^(?:at least |at most |)(\d+(?:[.,]\d+)?)(?=$|\s|%|°)/';

    public function test_no_field_reads_a_number_as_another_one(): void
    {
        $tried = $taken = [];
        foreach (['linnet', 'dunlin', 'plover'] as $name) {
            $data = BuildFile::data(BuildFile::read((string) file_get_contents(dirname(__DIR__, 3)."/demo/{$name}.json")));
            $whole = BuildFile::reading($data);
            foreach (self::leaves($data) as $pointer => [$path, $value]) {
                $field = (string) preg_replace('#/\d+(?=/|$)#', '/*', $pointer);
                // Steps are put in order as they are read, and stand elsewhere then.
                if (str_ends_with($field, '/from')) {
                    continue;
                }
                // A field is the same in each entry; a spec is one by its key.
                if (isset($tried[$field]) || str_contains($value, ' to ') || preg_match(self::LEADING, $value, $m) !== 1) {
                    continue;
                }
                $tried[$field] = true;
                foreach (self::SPELLINGS as $spelling => $means) {
                    $typed = (string) preg_replace('/'.preg_quote($m[1], '/').'/', $spelling, $value, 1);
                    $read = self::readBack($data, $path, $typed, $whole);
                    if ($read === null || $read === $typed) {
                        // Asked for again; or a text, which is kept to the letter.
                        continue;
                    }
                    $taken[$field] = true;
                    preg_match(self::LEADING, $read, $back);
                    self::assertEqualsWithDelta(
                        $means,
                        (float) str_replace(',', '.', $back[1] ?? $read),
                        1e-9,
                        "{$field}: \"{$typed}\" was read as \"{$read}\"",
                    );
                }
            }
        }
        self::assertGreaterThan(150, count($tried));
        self::assertGreaterThan(15, count($taken), 'Amounts of money are written anew.');
    }

    public function test_money_is_read_as_it_is_written_anywhere(): void
    {
        $price = static fn (string $text): ?string => self::readBack(
            [
                'magpie' => 2,
                'build' => ['name' => 'x', 'kind' => 'x', 'currency' => 'EUR', 'budget' => '1.00'],
            ],
            ['build', 'budget'],
            $text,
        );
        self::assertSame(
            ['4.90', '4.90', '1234.56', '1234.56', '1234567.80', null, null, null, null],
            array_map($price, ['4,90', '4.90', '1.234,56', '1,234.56', '1.234.567,8', '1,234', '1.23,456', '1,2,3', '-1']),
        );
    }

    /**
     * @param  array<string, mixed>  $data
     * @param  list<string|int>  $path
     */
    private static function readBack(array $data, array $path, string $typed, ?Reading $earlier = null): ?string
    {
        $at = &$data;
        foreach ($path as $key) {
            $at = &$at[$key];
        }
        $at = $typed;
        unset($at);
        try {
            $read = BuildFile::data(BuildFile::reading($data, earlier: $earlier)->build);
        } catch (CannotReadBuildFile) {
            return null;
        }
        foreach ($path as $key) {
            $read = is_array($read) ? $read[$key] ?? null : null;
        }

        return is_string($read) ? $read : null;
    }

    /**
     * @param  array<mixed>  $data
     * @param  list<string|int>  $path
     * @return iterable<string, array{list<string|int>, string}>
     */
    private static function leaves(array $data, array $path = []): iterable
    {
        foreach ($data as $key => $value) {
            $here = [...$path, $key];
            if (is_array($value)) {
                yield from self::leaves($value, $here);
            } elseif (is_string($value)) {
                yield '/'.implode('/', $here) => [$here, $value];
            }
        }
    }
}
