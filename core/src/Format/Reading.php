<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Machine\Build;

/**
 * A build as it was read, with the data of each entry, so that the next reading takes over what has not changed.
 *
 * @phpstan-import-type Change from Changes
 */
final readonly class Reading
{
    /**
     * @param  array<string, array<string, array{mixed, object}>>  $pairs  section → ref → data, and entry
     * @param  array<string, mixed>  $data  all of it
     */
    public function __construct(public Build $build, public array $pairs, public array $data)
    {
    }

    /** A build as if it had been read from its canonical form. */
    public static function of(Build $build): self
    {
        $data = BuildFile::data($build);
        $pairs = [];
        foreach (BuildFile::sections() as $key => $section) {
            /** @var array<string, object> $read */
            $read = $build->{$key};
            $entries = array_values($read);
            /** @var list<array<string, mixed>> $written */
            $written = $data[$key] ?? [];
            foreach ($written as $i => $raw) {
                $ref = $raw['ref'] ?? null;
                $pairs[$key][is_string($ref) ? $ref : "#{$i}"] = [$raw, $entries[$i]];
            }
        }

        return new self($build, $pairs, $data);
    }

    /**
     * The build with changes made to it. What they touch is read by every rule of the format; the rest stays the very
     * same.
     *
     * @param  list<Change>  $changes  as docs/api/openapi.json has them
     *
     * @throws CannotReadBuildFile when the changed build is none
     */
    public function changed(array $changes): Build
    {
        return BuildFile::reading(Changes::made($this->data, $changes), earlier: $this)->build;
    }
}
