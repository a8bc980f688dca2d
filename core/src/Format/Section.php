<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

/**
 * One collection of a build file: how an entry is read into a value and written back. Writing what was read gives
 * the entry in its canonical form, and reading that again gives the same value.
 *
 * @template T of object
 */
interface Section
{
    /** The member of the file that holds the collection: "leads". */
    public function key(): string;

    /**
     * @return T
     *
     * @throws CannotReadBuildFile
     */
    public function read(Node $node, Context $context): object;

    /**
     * @param  T  $entry
     * @return array<string, mixed> without empty members
     */
    public function write(object $entry): array;
}
