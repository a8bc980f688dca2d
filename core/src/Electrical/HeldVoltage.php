<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Port;
use Magpie\Core\Quantity\Quantity;

/** What a source holds, at both ends of its tolerance: that of the figure itself, and that of its output. */
final class HeldVoltage
{
    /**
     * @return array{Quantity, Quantity} lowest, highest
     *
     * @throws \Magpie\Core\Inspection\InputMissing when nobody says what it holds
     */
    public static function of(Inquiry $inquiry, Fitted $supply, Port $out): array
    {
        $low = self::lowest($inquiry, $supply, $out);
        if ($out->mains) {
            return [$low, $low];
        }
        $high = $inquiry->port($supply, $out, 'voltage', 'V', Bound::Highest);
        $tolerance = self::tolerance($inquiry, $supply);

        return [
            $low,
            $tolerance === null
                ? $high
                : $inquiry->work(
                    'Highest voltage of the source',
                    'V = V_0 × (1 + t)',
                    ['V_0' => $high, 't' => $tolerance],
                    $high->times(Quantity::ratio(1)->plus($tolerance)),
                    'V',
                ),
        ];
    }

    /**
     * @throws \Magpie\Core\Inspection\InputMissing when nobody says what it holds
     */
    public static function lowest(Inquiry $inquiry, Fitted $supply, Port $out): Quantity
    {
        if ($out->mains) {
            return $inquiry->mains();
        }
        $low = $inquiry->port($supply, $out, 'voltage', 'V', Bound::Lowest);
        $tolerance = self::tolerance($inquiry, $supply);

        return $tolerance === null ? $low : $low->times(Quantity::ratio(1)->minus($tolerance));
    }

    private static function tolerance(Inquiry $inquiry, Fitted $supply): ?Quantity
    {
        return $supply->part->family->field('voltage_tolerance') === null
            ? null
            : $inquiry->tryRead($supply, 'voltage_tolerance', 't');
    }
}
