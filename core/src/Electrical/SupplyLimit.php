<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Quantity\Quantity;

/** What a supply output may give: the least of its current rating and its power rating, less what heat takes. */
final class SupplyLimit
{
    /**
     * @throws \Magpie\Core\Inspection\InputMissing when the rating is not known
     */
    public static function of(Inquiry $inquiry, Fitted $fitted, Port $port): Quantity
    {
        $limit = $inquiry->port($fitted, $port, 'rated_current', 'I_r', Bound::Lowest);
        if (! $limit->isPositive()) {
            $inquiry->lack("a rated current of {$fitted->need->role} above nought");
        }
        $power = $inquiry->tryRead($fitted, 'rated_power', 'P_r', Bound::Lowest);
        $volts = $inquiry->tryPort($fitted, $port, 'voltage', 'V', Bound::Highest);
        if ($power !== null && $volts !== null && $volts->isPositive()) {
            $byPower = $power->over($volts)->to('A');
            if ($byPower->isBelow($limit)) {
                $limit = $inquiry->work(
                    'The label of the whole supply allows less',
                    'I_r = P_r / V',
                    ['P_r' => $power, 'V' => $volts],
                    $byPower,
                    'A',
                );
            }
        }
        if ($inquiry->tryChoice($fitted, 'cooling') !== 'fanless') {
            return $limit;
        }
        $from = $inquiry->tryRead($fitted, 'derate_from', 'T_0', Bound::Lowest) ?? Quantity::of(50, '°C');
        $slope = $inquiry->tryRead($fitted, 'derating', 'k') ?? Quantity::of(-2, '%/K');
        $air = Air::between($inquiry->build, $fitted->need->ref);
        $ambient = $air->given($inquiry);
        $air->askFor($inquiry);
        if (! $ambient->exceeds($from)) {
            return $limit;
        }
        $left = Quantity::max(
            Quantity::ratio(0.01),
            Quantity::ratio(1)->plus($slope->times($ambient->minus($from))->to('')),
        );

        return $inquiry->work(
            'Fanless, in warm air',
            'I_max = I_r × (1 + k × (T_a − T_0))',
            ['I_r' => $limit, 'k' => $slope, 'T_a' => $ambient, 'T_0' => $from],
            $limit->times($left),
            'A',
        );
    }

    /**
     * What a supply output goes on giving into a short: what it is rated for, and the most until it shuts down.
     *
     * @return array{Quantity, Quantity}
     *
     * @throws \Magpie\Core\Inspection\InputMissing when its rating is not known
     */
    public static function intoShort(Inquiry $inquiry, Fitted $fitted, Port $port): array
    {
        $rated = $inquiry->port($fitted, $port, 'rated_current', 'I_r', Bound::Lowest);
        $most = $inquiry->port($fitted, $port, 'rated_current', 'I_r', Bound::Highest);
        $peak =
            $fitted->part->family->field('peak_current') === null
                ? null
                : $inquiry->tryRead($fitted, 'peak_current', 'I_p', Bound::Highest);

        return [$rated, Quantity::max($most, $peak ?? $most->times(FaultCurrent::OVER_RATING))];
    }
}
