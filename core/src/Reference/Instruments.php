<?php

declare(strict_types=1);

namespace Magpie\Core\Reference;

use Magpie\Core\Quantity\Dimension;

/**
 * With what a value is found out, how, and how far off that may be, as a share: from core/reference/instruments.php.
 *
 * @phpstan-type Instrument array{string, string, string}
 */
final class Instruments
{
    /**
     * @param  string  $key  of the line of a sheet, or of what is measured of a lead or joint
     * @param  bool  $rated  what a part of this kind is rated for is its maker's word
     * @return Instrument
     */
    public static function of(string $key, ?Dimension $dimension, bool $rated = false): array
    {
        /**
         * @var array{limits: list<string>, limit: Instrument, otherwise: Instrument,
         *     by_spec: array<string, Instrument>, by_dimension: array<string, Instrument>} $table
         */
        $table = Tables::named('instruments');

        return in_array($key, $table['limits'], true) || ($rated && str_starts_with($key, 'rated_'))
            ? $table['limit']
            : $table['by_spec'][$key] ?? ($table['by_dimension'][$dimension->value ?? ''] ?? $table['otherwise']);
    }
}
