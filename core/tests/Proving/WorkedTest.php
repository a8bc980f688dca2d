<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Proving;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** No figure changes unseen: a change that was meant is written anew by php tests/worked.php, and its difference read. */
final class WorkedTest extends TestCase
{
    /**
     * @return iterable<string, array{string}>
     */
    public static function names(): iterable
    {
        foreach (array_keys(Worked::texts()) as $name) {
            yield $name => [$name];
        }
    }

    #[DataProvider('names')]
    public function test_all_that_is_worked_out_is_as_it_was(string $name): void
    {
        $was = explode("\n", (string) file_get_contents(Worked::FOLDER."/{$name}.txt"));
        $is = explode("\n", Worked::texts()[$name]());

        self::assertSame(
            [[], []],
            [array_slice(array_diff($was, $is), 0, 12), array_slice(array_diff($is, $was), 0, 12)],
            'What was, and what is now. If that was meant: php tests/worked.php',
        );
        self::assertSame(count($was), count($is), 'A line came or went.');
    }
}
