<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\Conductors;

/**
 * What a lead as laid may carry: its conductors, corrected for the air around them and for what they are bunched with.
 */
final class Ampacity
{
    /**
     * @return Quantity current all conductors of one pole may carry together
     *
     * @throws \Magpie\Core\Inspection\InputMissing
     */
    public static function of(Inquiry $inquiry, Lead $lead): Quantity
    {
        $size = PowerLeads::size($inquiry, $lead);
        $ambient = Air::of($inquiry->build, $lead)->given($inquiry);
        $row = Conductors::ampacity($size, self::method($lead));
        if ($row === null) {
            $inquiry->lack("an ampacity for a conductor as thin as {$size}");
        }
        [$listed, $tableAmbient, $source] = $row;
        $factor = Conductors::ambientFactor($ambient, $tableAmbient);
        if ($factor === null) {
            $inquiry->lack("an ampacity in air of {$ambient}: the tables end at 60 °C");
        }
        $bunch = Conductors::groupingFactor($lead->bundledWith + 1);
        $count = Quantity::ratio($lead->effectiveConductors());

        return $inquiry->work(
            "What {$size} may carry ({$source}; air {$ambient}; {$lead->bundledWith} other circuits in the bundle)",
            'I_z = I_t × k_a × k_g × n',
            ['I_t' => $listed, 'k_a' => $factor, 'k_g' => $bunch, 'n' => $count],
            $listed->times($factor)->times($bunch)->times($count),
            'A',
        );
    }

    /**
     * As of(), to compute with where nothing is asked for.
     *
     * @return Quantity|null null where no table goes
     */
    public static function figure(Build $build, Lead $lead): ?Quantity
    {
        $air = Quantity::of(Air::of($build, $lead)->degrees(), '°C');
        $size = $lead->conductor->size;

        return $size === null
            ? null
            : Conductors::ampacityIn($air, $size, self::method($lead))
                ?->times(Conductors::groupingFactor($lead->bundledWith + 1))
                ->times($lead->effectiveConductors());
    }

    /**
     * As of(), with what it rests on but without a line of working: where many leads are asked for at once.
     *
     * @throws \Magpie\Core\Inspection\InputMissing
     */
    public static function quiet(Inquiry $inquiry, Lead $lead): Quantity
    {
        PowerLeads::size($inquiry, $lead);
        Air::of($inquiry->build, $lead)->given($inquiry);

        return self::figure($inquiry->build, $lead) ??
            $inquiry->lack("an ampacity for {$lead->ref}: no table goes so far");
    }

    /** A lead alone and still lies in free air (E); any other is taken as enclosed with its neighbours (B2). */
    private static function method(Lead $lead): string
    {
        return $lead->route === 'fixed' && $lead->bundledWith === 0 ? 'E' : 'B2';
    }
}
