<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Machine\Evidence;
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
        $size = $inquiry->given(
            "conductor size of {$lead->ref}",
            'A',
            $lead->conductor->size,
            $lead->conductor->evidence,
            "leads/{$lead->ref}/conductor/size",
        );
        $site = $inquiry->build->site;
        $ambient = $inquiry->given(
            'ambient temperature of the site',
            'T_a',
            $site->ambient,
            Evidence::Measured,
            'site/ambient',
        );
        // A lead alone and still lies in free air (E); any other is taken as enclosed with its neighbours (B2).
        $method = $lead->route === 'fixed' && $lead->bundledWith === 0 ? 'E' : 'B2';
        $row = Conductors::ampacity($size, $method);
        if ($row === null) {
            $inquiry->lack("an ampacity for a conductor as thin as {$size}");
        }
        [$listed, $tableAmbient, $source] = $row;
        $air = Conductors::ambientFactor($ambient, $tableAmbient);
        if ($air === null) {
            $inquiry->lack("an ampacity in air of {$ambient}: the tables end at 60 °C");
        }
        $bunch = Conductors::groupingFactor($lead->bundledWith + 1);
        $count = Quantity::ratio($lead->effectiveConductors());

        return $inquiry->work(
            "What {$size} may carry ({$source}; air {$ambient}; {$lead->bundledWith} other circuits in the bundle)",
            'I_z = I_t × k_a × k_g × n',
            ['I_t' => $listed, 'k_a' => $air, 'k_g' => $bunch, 'n' => $count],
            $listed->times($air)->times($bunch)->times($count),
            'A',
        );
    }
}
