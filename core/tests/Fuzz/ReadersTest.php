<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Fuzz;

use PHPUnit\Framework\TestCase;

/** A few thousand here; bin/magpie bench fuzz makes a hundred thousand of them. */
final class ReadersTest extends TestCase
{
    public function test_whatever_is_brought_is_read_or_refused_in_words(): void
    {
        $readers = new Readers(20_261_128, dirname(__DIR__, 3).'/demo/plover.json');
        self::assertSame([], $readers->run(4000));
        // Damage that everything survives, or nothing does, tries nothing.
        foreach (['quantity', 'range', 'build file', 'mesh', 'log', 'sound'] as $name) {
            self::assertGreaterThan(5, $readers->read[$name] ?? 0, $name);
            self::assertGreaterThan(5, $readers->refused[$name] ?? 0, $name);
        }
    }
}
