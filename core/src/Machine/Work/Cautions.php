<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Work;

/**
 * The standing cautions of the trade, shown at the step they belong to.
 */
final class Cautions
{
    private const TEXTS = [
        'mains' => 'Mains voltage kills. Unplug, wait, prove dead before touching. Covers on before power. This is a planning aid; local code and a licensed electrician decide.',
        'earth' => 'Every touchable metal part is earthed. Measure the bond before the first power-up.',
        'stored_charge' => 'Supplies and drives stay charged after the plug is out. Wait as long as the label says, then measure.',
        'hot' => 'Bed and nozzle burn skin long after they are switched off.',
        'fire' => 'Never unattended while untested. Smoke alarm above, extinguisher within reach.',
        'cutter' => 'A cutter throws what is loose. Clamps tight, guard on, eyes covered, hands away until it stands still.',
        'dust' => 'Extraction on, mask on. Keep chips and metal dust off live electronics.',
        'fumes' => 'Ventilate: hot ABS, ASA, resin and lacquer give off harmful fumes.',
        'arc' => 'Arc light burns eyes and skin, bystanders included. Shade, extraction, fire watch.',
        'pinch' => 'Motors and belts pinch. Power off before a hand goes in.',
        'lifting' => 'Heavy: two people, or lower it onto blocks.',
        'sharp' => 'Swarf and fresh-cut edges cut. Deburr before handling.',
        'hearing' => 'Loud: ear protection on.',
    ];

    public static function has(string $key): bool
    {
        return isset(self::TEXTS[$key]);
    }

    /**
     * @return array<string, string>
     */
    public static function all(): array
    {
        return self::TEXTS;
    }
}
