<?php

declare(strict_types=1);

namespace Magpie\Core\Scope;

use Magpie\Core\Reference\Tables;

/** Mains of some countries, from reference/mains.php: a first answer, which the plate on the outlet corrects. */
final class Countries
{
    /**
     * @return array<string, array{string, string, list<string>}> voltage, frequency, usual outlets
     */
    public static function all(): array
    {
        /** @var array<string, array{string, string, list<string>}> $mains */
        $mains = Tables::named('mains');

        return $mains;
    }
}
