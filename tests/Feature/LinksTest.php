<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Builds\Column;
use App\Builds\Schema;
use App\Builds\Table;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\Link;
use Magpie\Core\Format\Linking;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Machine\Build;
use PHPUnit\Framework\TestCase;

/** What the sections declare to name others, and what the database joins, are the same. */
final class LinksTest extends TestCase
{
    /**
     * Kept as text: a place within a need, a choice whose kind depends on what is decided, and places that are told from each
     * other in any order.
     */
    private const AS_TEXT = [
        'needs sits_in needs',
        'decisions choice parts',
        'decisions choice routes',
        'places on places',
        'places x/of places',
        'places y/of places',
        'places z/of places',
    ];

    public function test_every_join_of_the_database_is_declared_and_every_link_declared_is_joined(): void
    {
        $declared = [];
        foreach ($this->builds() as $build) {
            foreach (BuildFile::sections() as $key => $section) {
                if (! ($section instanceof Linking)) {
                    continue;
                }
                foreach ($build->{$key} as $entry) {
                    foreach ($section->links($entry) as $link) {
                        $declared[self::pattern($key, $link)] = true;
                    }
                }
            }
        }
        $joined = [];
        foreach (Schema::sections() as $key => $table) {
            foreach (self::joins($table) as [$path, $of]) {
                $joined["{$key} {$path} {$of}"] = true;
            }
        }
        $declared = array_diff(array_keys($declared), self::AS_TEXT);
        $joined = array_keys($joined);
        sort($declared);
        sort($joined);

        self::assertSame($joined, $declared);
    }

    /** A member with its places in lists and maps taken for one. */
    private static function pattern(string $section, Link $link): string
    {
        $at = (string) preg_replace(
            '#^(loads|uses)/.*#',
            '$1/*',
            (string) preg_replace('#/\d+(?=/|$)#', '/*', $link->at),
        );

        return "{$section} {$at} {$link->to}";
    }

    /**
     * @return iterable<array{string, string}> path and section
     */
    private static function joins(Table $table, string $prefix = ''): iterable
    {
        foreach ($table->columns as $column) {
            if ($column->kind === 'link') {
                yield [rtrim($prefix.strtr($column->path, '.', '/'), '/'), (string) $column->of];
            }
        }
        foreach ($table->ports as $port) {
            yield [$prefix.$port, 'needs'];
        }
        foreach ($table->inner as $path => $inner) {
            $inside = $prefix.strtr($path, '.', '/').'/*';
            if ($inner->key instanceof Column && $inner->key->kind === 'link') {
                yield [$inside, (string) $inner->key->of];
            }
            yield from self::joins($inner->table, "{$inside}/");
        }
    }

    /**
     * @return list<Build> the demo's, and one for what they do not use
     */
    private function builds(): array
    {
        $demo = static fn (string $name): Build => BuildFile::read(
            (string) file_get_contents(dirname(__DIR__, 2)."/demo/{$name}.json"),
        );

        $rollers = Examples::file(
            [Examples::part('rollers', 'bearing', [])],
            ['axes' => [['ref' => 'x', 'name' => 'X', 'along' => 'x', 'guides' => 'rollers']]],
        );
        $other = [
            'magpie' => BuildFile::VERSION,
            'build' => ['name' => 'Other', 'kind' => 'plotter', 'currency' => 'GBP'],
        ];

        return [$demo('linnet'), $demo('dunlin'), $demo('plover'), BuildFile::build($other + $rollers)];
    }
}
