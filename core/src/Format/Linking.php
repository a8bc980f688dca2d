<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

/**
 * A collection whose entries name others. The one place that says which: whether they are there, where an entry is used
 * and what the database joins follow from it.
 *
 * @template T of object
 *
 * @extends Section<T>
 */
interface Linking extends Section
{
    /**
     * What a person calls an entry in a list of where something is used: "lead W7".
     *
     * @param  T  $entry
     */
    public function said(object $entry): string;

    /**
     * @param  T  $entry
     * @return iterable<Link>
     */
    public function links(object $entry): iterable;
}
