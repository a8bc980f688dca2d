<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use RuntimeException;

/** Activities that wait for one another, so that none can ever begin. */
final class Circle extends RuntimeException
{
    /**
     * @param  list<string>  $members  labels, in the order they wait
     */
    public function __construct(public readonly array $members)
    {
        parent::__construct('These wait for one another: '.implode(', ', $members).'.');
    }
}
