<?php

declare(strict_types=1);

namespace Magpie\Core\Site;

use Magpie\Core\Inspection\Check;

/** Checks on where the machine stands. */
final class SiteRules
{
    /**
     * @return list<Check>
     */
    public static function all(): array
    {
        return [new RoomForIt];
    }
}
