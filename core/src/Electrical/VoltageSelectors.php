<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Machine\Build;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;

/** What the voltage selectors of boards are set to, as it was read from the machine. */
final class VoltageSelectors
{
    /** The setting that says it. */
    public static function key(string $board, string $bank): string
    {
        return "bank.{$board}.{$bank}";
    }

    /** Null when it was not read yet, or what was noted is no voltage. */
    public static function of(Build $build, string $board, string $bank): ?Quantity
    {
        foreach ($build->settings as $setting) {
            if ($setting->about === self::key($board, $bank) && $setting->value !== null) {
                try {
                    return Quantity::parse($setting->value, Dimension::Voltage, 'V');
                } catch (CannotReadQuantity) {
                    return null;
                }
            }
        }

        return null;
    }
}
