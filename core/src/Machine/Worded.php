<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

/** A closed vocabulary, and its words as a build file writes them. */
trait Worded
{
    /**
     * @return list<string>
     */
    public static function words(): array
    {
        return array_column(self::cases(), 'value');
    }
}
