<?php

declare(strict_types=1);

namespace Magpie\Core\Simulation;

use Magpie\Core\Quantity\Money;

/**
 * Stand-in for a service that tells rates: invented, near what they were, and good for nothing but turning the invented prices of the
 * example library into another currency. A rate of a build is always its builder's.
 */
final readonly class InventedRates
{
    /** What one is worth in pounds. */
    private const IN_POUNDS = [
        'GBP' => '1', 'EUR' => '0.86', 'USD' => '0.79', 'CHF' => '0.9', 'SEK' => '0.075', 'NOK' => '0.073', 'DKK' => '0.115',
        'PLN' => '0.2', 'CZK' => '0.034', 'AUD' => '0.52', 'CAD' => '0.57', 'NZD' => '0.47', 'JPY' => '0.0052',
    ];

    /** The amount in another currency, to the cent; a currency that is not known here is taken as worth a pound. */
    public static function turn(Money $amount, string $to): Money
    {
        return $amount->currency === $to
            ? $amount
            : $amount
                ->at(self::IN_POUNDS[$amount->currency] ?? '1', 'GBP')
                ->against(self::IN_POUNDS[$to] ?? '1', $to)
                ->cents();
    }
}
