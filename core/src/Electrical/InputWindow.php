<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Quantity\Quantity;

/**
 * The voltages an input takes: as its sheet says, or on the mains about what it is rated for. Apparatus for 220 V to 240 V is
 * made for one and the same mains (IEC 60038, from memory); a sixth either way is common practice, no source.
 */
final class InputWindow
{
    private const EITHER_WAY = 1 / 6;

    public static function lowest(Inquiry $inquiry, Fitted $fitted, Port $port): ?Quantity
    {
        return $inquiry->tryPort($fitted, $port, 'min_voltage', 'V_min', Bound::LeastNeeded) ??
            self::about($inquiry, $fitted, $port, 1 - self::EITHER_WAY);
    }

    public static function highest(Inquiry $inquiry, Fitted $fitted, Port $port): ?Quantity
    {
        return $inquiry->tryPort($fitted, $port, 'max_voltage', 'V_max', Bound::MostStood) ??
            self::about($inquiry, $fitted, $port, 1 + self::EITHER_WAY);
    }

    private static function about(Inquiry $inquiry, Fitted $fitted, Port $port, float $times): ?Quantity
    {
        return $port->mains && $fitted->part->family->field('rated_voltage') !== null
            ? $inquiry->tryRead($fitted, 'rated_voltage', 'V_r')?->times($times)
            : null;
    }
}
