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

    /** Voltages that supplies are sold by, V: a sheet that ends at one of them names those, and not a limit. Common practice, no source. */
    private const NOMINAL = [3.3, 5.0, 12.0, 24.0, 48.0];

    /** By how much what is held or arrives may pass one of them. */
    private const GIVE = 0.05;

    /** @param  bool  $onMains  what feeds it is the mains, whatever the port is made for */
    public static function lowest(Inquiry $inquiry, Fitted $fitted, Port $port, bool $onMains = false): ?Quantity
    {
        return $inquiry->tryPort($fitted, $port, 'min_voltage', 'V_min', Bound::LeastNeeded) ??
            self::about($inquiry, $fitted, $onMains || $port->mains, 1 - self::EITHER_WAY);
    }

    /** @param  bool  $onMains  as for lowest() */
    public static function highest(Inquiry $inquiry, Fitted $fitted, Port $port, bool $onMains = false): ?Quantity
    {
        return $inquiry->tryPort($fitted, $port, 'max_voltage', 'V_max', Bound::MostStood) ??
            self::about($inquiry, $fitted, $onMains || $port->mains, 1 + self::EITHER_WAY);
    }

    /** Whether a voltage passes a limit by no more than a nominal voltage is passed in use. */
    public static function isWithinNominal(Quantity $volts, Quantity $limit): bool
    {
        [$at, $of] = [$volts->in('V'), $limit->in('V')];

        return self::isNominal($limit) && abs($at - $of) <= self::GIVE * $of + 1e-9;
    }

    /** What may stand there: a nominal voltage with what it is passed by in use, any other as it is. */
    public static function withGive(Quantity $limit): Quantity
    {
        return self::isNominal($limit) ? $limit->times(1 + self::GIVE) : $limit;
    }

    private static function isNominal(Quantity $limit): bool
    {
        return in_array(round($limit->in('V'), 6), self::NOMINAL, true);
    }

    private static function about(Inquiry $inquiry, Fitted $fitted, bool $onMains, float $times): ?Quantity
    {
        return $onMains && $fitted->part->family->field('rated_voltage') !== null
            ? $inquiry->tryRead($fitted, 'rated_voltage', 'V_r')?->times($times)
            : null;
    }
}
